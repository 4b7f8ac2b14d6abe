import { useCallback, useEffect, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { Refusal, type Item, type ItemAnswer, type Kind } from '../api/client'
import type { Notice } from './Notices'
import { wrongRows } from './TakeIn'
import { useChange } from './useKit'

/** What is being entered, and what it changes; nothing when it is new. */
type Draft = { at: ItemAnswer | undefined; item: Item }

/** At the end of the chain of changes there is nothing to do and nothing to say. */
function quietAtTheEnd(error: unknown, told: (error: unknown) => void) {
  if (!(error instanceof Refusal && error.problem.type.endsWith('no-step'))) told(error)
}

/** The thing in hand: entered, kept, copied, put away, taken back; and what came of it. */
export function useInHand(kind: Kind, chosen: string, kept: ItemAnswer | undefined) {
  const navigate = useNavigate()
  const change = useChange()
  const [draft, setDraft] = useState<Draft>()
  const [notice, setNotice] = useState<Notice>()

  const entering = useRef(draft)
  useEffect(() => {
    entering.current = draft
  }, [draft])
  // Another thing in hand: what was being entered belongs to the one before, and is kept within reach.
  useEffect(() => {
    const left = entering.current
    if (left && left.item !== left.at?.thing) {
      const name = left.item.item.name
      setNotice({
        text: `The figures entered for ${name} were not kept.`,
        action: { words: 'Go back to them', run: () => setDraft(left) },
      })
    }
    setDraft(undefined)
  }, [chosen])

  const told = useCallback((error: unknown) => {
    setNotice({ text: error instanceof Error ? error.message : 'That did not work.', rows: wrongRows(error) })
  }, [])
  // A new thing is empty: no figure of it is anybody else's.
  const start = () => setDraft({ at: undefined, item: { what: kind, item: { id: '', name: '' } } as Item })
  const entered = () => kept && setDraft({ at: kept, item: kept.thing })
  // A copy gets its identity from the name it is kept under.
  const copied = () => {
    if (!kept) return
    const { thing } = kept
    setDraft({
      at: undefined,
      item: { ...thing, item: { ...thing.item, id: '', name: `${thing.item.name}, copy` } } as Item,
    })
  }
  const keep = () => {
    if (!draft) return
    const what = draft.at
      ? ({ do: 'put', at: draft.at, item: draft.item } as const)
      : ({ do: 'add', item: draft.item } as const)
    change.mutate(what, {
      onSuccess: (made) => {
        setDraft(undefined)
        setNotice(undefined)
        if (made) void navigate(`/kit/${kind}/${made.id}`)
      },
      onError: (error) => {
        const current = error instanceof Refusal ? error.problem.current_item : undefined
        if (current) {
          setDraft({ ...draft, at: current })
          setNotice({
            text: 'It was changed in another window meanwhile. Keep again to put yours on top; undo leads back to theirs.',
          })
        } else if (!(error instanceof Refusal && error.problem.field)) told(error)
      },
    })
  }
  const step = (way: 'undo' | 'redo' | 'retire' | 'unretire') =>
    kept && change.mutate({ do: way, at: kept }, { onError: (error) => quietAtTheEnd(error, told) })
  const remove = () =>
    kept &&
    change.mutate(
      { do: 'delete', at: kept },
      {
        onSuccess: () => {
          setNotice({
            text: `${kept.thing.item.name} was deleted.`,
            action: { words: 'Bring it back', run: () => change.mutate({ do: 'restore', id: kept.id }) },
          })
          void navigate(`/kit/${kind}`)
        },
        onError: (error) =>
          setNotice({
            text: error.message,
            action:
              error instanceof Refusal && error.problem.used_by?.length
                ? { words: 'Retire it', run: () => step('retire') }
                : undefined,
          }),
      },
    )
  const drop = () => {
    setDraft(undefined)
    change.reset()
  }
  return {
    draft,
    setDraft,
    notice,
    setNotice,
    told,
    change,
    start,
    entered,
    copied,
    keep,
    step,
    remove,
    drop,
  }
}
