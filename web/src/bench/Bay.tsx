import { CloseButton, FocusTrap, Popover, Portal, type PopoverProps } from '@mantine/core'
import { useEffect, useId, useSyncExternalStore, type ReactNode } from 'react'
import classes from './Bay.module.css'

const ID = 'bench-bay'

/** Where what is opened on the Bench stands: over moment and controls, never over what answers it. */
export const Bay = () => <div id={ID} className={classes.bay} />

const isOpen = () => (document.getElementById(ID)?.childElementCount ?? 0) > 0
function watched(tell: () => void) {
  const bay = document.getElementById(ID)
  if (!bay) return () => undefined
  const watch = new MutationObserver(tell)
  watch.observe(bay, { childList: true })
  return () => watch.disconnect()
}

/** Whether anything is open over the controls; for what lives as long as the bay does. */
export const useOpened = () => useSyncExternalStore(watched, isOpen)

type Props = PopoverProps & {
  /** Over the controls at the left, so that those at the right stay in sight; or the other way round. */
  side: 'left' | 'right'
}

/** Something small, opened by its button. */
export function Opened({ side, ...rest }: Props) {
  return (
    <Popover
      trapFocus
      returnFocus
      position={side === 'left' ? 'top-start' : 'top-end'}
      portalProps={{ target: `#${ID}` }}
      middlewares={{ flip: false, shift: false }}
      classNames={{ dropdown: classes.opened! }}
      {...rest}
    />
  )
}
Opened.Target = Popover.Target
Opened.Dropdown = Popover.Dropdown

type SheetProps = { title: string; onClose: () => void; children: ReactNode }

/** Something large, over the whole lower half; Escape closes it. */
export function BaySheet({ title, onClose, children }: SheetProps) {
  const heading = useId()
  useEffect(() => {
    // A list that is open in it is closed by the first Escape: that is known on the way in, before the list is gone.
    const closes = (event: KeyboardEvent) => {
      const inList = (event.target as Element)
        .closest('[role=dialog]')
        ?.querySelector('[aria-expanded="true"]')
      if (event.key === 'Escape' && !inList) onClose()
    }
    window.addEventListener('keydown', closes, { capture: true })
    return () => window.removeEventListener('keydown', closes, { capture: true })
  }, [onClose])
  return (
    <Portal target={`#${ID}`}>
      <FocusTrap active>
        <section role="dialog" aria-labelledby={heading} className={classes.sheet}>
          <header className={classes.head}>
            <h2 id={heading} className={classes.title}>
              {title}
            </h2>
            <CloseButton aria-label="Close" onClick={onClose} />
          </header>
          {children}
        </section>
      </FocusTrap>
    </Portal>
  )
}
