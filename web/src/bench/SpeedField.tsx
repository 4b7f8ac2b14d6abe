import { TextInput } from '@mantine/core'
import { useEffect, useRef, useState } from 'react'
import { answered, client, type Part, type Shot } from '../api/client'
import { reading } from '../controls/reading'

/** A pause in typing after which it is worth asking, in ms. */
const PAUSE = 120

type Props = {
  part: Part
  /** The shot as it is, for a length that was seen in a test frame of it. */
  shotNow: () => Shot
  error: string | undefined
  onChange: (speed: Pick<Part, 'speed_m_s' | 'slowest_m_s' | 'speed_from'>) => void
}

const figure = (speed: number) => String(+speed.toPrecision(3))
const written = ({ speed_m_s, slowest_m_s }: Part) =>
  `${slowest_m_s == null || figure(slowest_m_s) === figure(speed_m_s) ? '' : `${figure(slowest_m_s)}–`}${figure(speed_m_s)} m/s`

/** How fast a part is, said as somebody knows it; what is judged by is the fast end. */
export function SpeedField({ part, shotNow, error, onChange }: Props) {
  const [raw, setRaw] = useState<string>()
  const [heard, setHeard] = useState<{ words?: string; wrong?: string }>({})
  const asked = useRef(0)
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)
  const latest = useRef(onChange)
  useEffect(() => {
    latest.current = onChange
  })
  const read = async (typed: string): Promise<boolean> => {
    const own = ++asked.current
    try {
      const { slowest_m_s, fastest_m_s, basis } = await answered(
        client.POST('/api/speed', { body: { text: typed, shot: shotNow(), in_m_s: true } }),
      )
      if (own !== asked.current) return false
      const said = {
        speed_m_s: +fastest_m_s.toFixed(4),
        slowest_m_s: slowest_m_s < fastest_m_s ? +slowest_m_s.toFixed(4) : undefined,
        speed_from: basis,
      }
      setHeard({ words: `= ${written({ ...part, ...said })}, ${basis}` })
      latest.current(said)
      return true
    } catch (failure) {
      if (own === asked.current) setHeard({ wrong: (failure as Error).message })
      return false
    }
  }
  const ask = (text: string) => {
    clearTimeout(timer.current)
    void reading(
      read(text).then((understood) => {
        if (understood) setRaw(undefined)
      }),
    )
  }
  return (
    <TextInput
      size="xs"
      label="Speed"
      autoComplete="off"
      spellCheck={false}
      inputWrapperOrder={['label', 'input', 'description', 'error']}
      title="Say it as you know it: sprint, 12 km/h, 5:30 /km, jump 40 cm, 2 turns a second at 50 cm, 100 m in 12 s, 120 px at 1/60"
      value={raw ?? written(part)}
      description={heard.words ?? part.speed_from ?? undefined}
      error={heard.wrong ?? error}
      data-unclear={heard.wrong ? true : undefined}
      onChange={(event) => {
        const text = event.currentTarget.value
        setRaw(text)
        setHeard({})
        clearTimeout(timer.current)
        timer.current = setTimeout(() => void reading(read(text)), PAUSE)
      }}
      onBlur={() => raw !== undefined && ask(raw)}
      onKeyDown={(event) => {
        if (event.key === 'Enter' && raw !== undefined) ask(raw)
        const by = { ArrowUp: 0.5, ArrowDown: -0.5 }[event.key]
        if (by === undefined) return
        event.preventDefault()
        setRaw(undefined)
        setHeard({})
        const speed_m_s = Math.max(0, +(part.speed_m_s + by).toFixed(4))
        onChange({ speed_m_s, slowest_m_s: undefined, speed_from: undefined })
      }}
    />
  )
}
