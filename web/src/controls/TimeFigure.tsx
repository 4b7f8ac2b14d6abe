import { TextInput, type TextInputProps } from '@mantine/core'
import { answered, client } from '../api/client'
import { useHeard } from './useHeard'

type Props = Omit<TextInputProps, 'value' | 'onChange'> & {
  /** As a camera's dial writes it. */
  value: string | undefined
  onChange: (value: string | undefined) => void
}

/**
 * A time of a camera, typed as it is said and kept as its dial writes it. What could be two things, 60 on a dial, is asked
 * back at the field and goes nowhere; an empty field goes out as nothing.
 */
export function TimeFigure({ value, error, onChange, ...rest }: Props) {
  const heard = useHeard<string | undefined>({
    ask: async (text) => {
      if (text.trim() === '') return { value: undefined }
      const { dial } = await answered(client.POST('/api/said', { body: { kind: 'time', text } }))
      return { value: dial ?? undefined, words: dial === text.trim() ? undefined : `= ${dial}` }
    },
    onTake: (time) => time !== value && onChange(time),
  })
  return (
    <TextInput
      size="xs"
      autoComplete="off"
      spellCheck={false}
      inputWrapperOrder={['label', 'input', 'description', 'error']}
      {...rest}
      value={heard.raw ?? value ?? ''}
      description={heard.words ?? rest.description}
      error={heard.wrong ?? error}
      data-unclear={heard.wrong ? true : undefined}
      onChange={(event) => heard.type(event.currentTarget.value)}
      onBlur={heard.leave}
      onKeyDown={(event) => {
        rest.onKeyDown?.(event)
        if (event.key === 'Enter') heard.enter()
      }}
    />
  )
}
