import { TextInput, UnstyledButton } from '@mantine/core'
import { useVirtualizer } from '@tanstack/react-virtual'
import { memo, useMemo, useRef, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import type { ItemCard } from '../api/client'
import { LaneSign } from './LaneMark'
import classes from './Shelf.module.css'

const CARD = 54

const placeOf = ({ what, id }: ItemCard) => `/kit/${what}/${id}`

type Props = {
  items: ItemCard[]
  chosen: string
  /** Units in the comparison, the one in hand first; `undefined` where nothing is compared. */
  lanes: string[] | undefined
  onCompare: (id: string) => void
}

/** Everything of one kind, found by name or figure. Only the cards in sight are in the page. */
export function Shelf({ items, chosen, lanes, onCompare }: Props) {
  const [wanted, setWanted] = useState('')
  const [retired, setRetired] = useState(false)
  const go = useNavigate()
  const box = useRef<HTMLDivElement>(null)
  const shown = useMemo(() => {
    const words = wanted.toLowerCase().split(/\s+/).filter(Boolean)
    return items.filter(
      (item) =>
        (retired || !item.retired || item.id === chosen) &&
        words.every((word) => `${item.name} ${item.line}`.toLowerCase().includes(word)),
    )
  }, [items, wanted, retired, chosen])
  const rows = useVirtualizer({
    count: shown.length,
    getScrollElement: () => box.current,
    estimateSize: () => CARD,
    overscan: 6,
  })
  const away = items.filter((item) => item.retired).length
  return (
    <section className={classes.shelf} aria-label="Shelf">
      <TextInput
        id="kit-find"
        size="xs"
        aria-label="Find in the kit"
        placeholder="Find by name or figure"
        rightSection={<kbd className={classes.key}>/</kbd>}
        value={wanted}
        onChange={(event) => setWanted(event.currentTarget.value)}
        onKeyDown={({ key }) => {
          const first = shown[0]
          if (key === 'Enter' && wanted && first) void go(placeOf(first))
        }}
      />
      <div ref={box} className={classes.box} data-shown={shown.length}>
        <ul style={{ height: rows.getTotalSize() }} className={classes.list}>
          {rows.getVirtualItems().map(({ index, start }) => {
            const item = shown[index]!
            return (
              <li key={item.id} className={classes.place} style={{ transform: `translateY(${start}px)` }}>
                <Card
                  item={item}
                  chosen={item.id === chosen}
                  lane={lanes ? lanes.indexOf(item.id) : undefined}
                  full={(lanes?.length ?? 0) >= 4}
                  onCompare={onCompare}
                />
              </li>
            )
          })}
        </ul>
        {shown.length === 0 && <p className={classes.none}>Nothing here is called that.</p>}
      </div>
      {away > 0 && (
        <UnstyledButton
          className={classes.retired}
          onClick={() => setRetired(!retired)}
          aria-pressed={retired}
        >
          {retired ? 'Hide' : 'Show'} {away} retired
        </UnstyledButton>
      )}
    </section>
  )
}

type CardProps = {
  item: ItemCard
  chosen: boolean
  lane: number | undefined
  full: boolean
  onCompare: (id: string) => void
}

const Card = memo(function Card({ item, chosen, lane, full, onCompare }: CardProps) {
  return (
    <div className={classes.card} data-chosen={chosen || undefined} data-retired={item.retired || undefined}>
      <Link
        to={placeOf(item)}
        className={classes.link}
        aria-current={chosen ? 'true' : undefined}
        data-thing={item.id}
      >
        <b>
          {item.name}
          {item.retired && <small> retired</small>}
        </b>
        <span>{item.line}</span>
      </Link>
      {lane !== undefined && (
        <UnstyledButton
          className={classes.compare}
          aria-pressed={lane >= 0}
          aria-label={chosen ? `${item.name} is in hand` : `Compare with ${item.name}`}
          disabled={chosen || (lane < 0 && full)}
          data-compare={item.id}
          onClick={() => onCompare(item.id)}
        >
          {lane >= 0 ? <LaneSign lane={lane} /> : '+'}
        </UnstyledButton>
      )}
    </div>
  )
})
