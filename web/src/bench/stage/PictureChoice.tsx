import classes from './PictureChoice.module.css'

type Props<T extends string> = {
  /** What is asked for, as the program calls it. */
  of: 'pose' | 'place' | 'prop' | 'outfit' | 'hair' | 'build'
  words: Partial<Record<T, string>>
  chosen: readonly T[]
  onChoose: (one: T) => void
}

/** Things to choose from by their pictures, drawn as the frame is drawn. */
export function PictureChoice<T extends string>({ of, words, chosen, onChoose }: Props<T>) {
  return (
    <div className={classes.grid} data-testid={`choose-${of}`}>
      {(Object.entries(words) as [T, string][]).map(([one, word]) => (
        <button
          key={one}
          type="button"
          className={classes.one}
          aria-pressed={chosen.includes(one)}
          onClick={() => onChoose(one)}
        >
          <img
            src={`/api/stage/choice?${of}=${one}`}
            alt=""
            loading="lazy"
            width={92}
            height={61}
            className={classes.picture}
          />
          {word}
        </button>
      ))}
    </div>
  )
}
