import { Anchor, Button } from '@mantine/core'
import { marked } from 'marked'
import { useMemo } from 'react'
import { NavLink, useNavigate, useParams } from 'react-router'
import classes from './Notes.module.css'

// The pages are our own, from docs/model; they are built into this piece of the application.
const PAGES = import.meta.glob<string>('../../../docs/model/*.md', {
  query: '?raw',
  import: 'default',
  eager: true,
})

const pages = Object.entries(PAGES).map(([path, text]) => ({
  page: path.split('/').pop()!.replace('.md', ''),
  text,
  title: /^# (.*)/.exec(text)?.[1] ?? path,
}))

/** The model in pages: what is computed, from what, and how far it can be trusted. */
export function Notes() {
  const { page } = useParams()
  const navigate = useNavigate()
  const open = pages.find((one) => one.page === page) ?? pages[0]!
  const html = useMemo(() => marked.parse(open.text, { async: false }), [open])
  return (
    <main className={classes.notes}>
      <nav aria-label="Pages of the model">
        <Button size="compact-sm" variant="default" mb={8} onClick={() => void navigate(-1)}>
          ← Back
        </Button>
        {pages.map((one) => (
          <Anchor key={one.page} component={NavLink} to={`/notes/${one.page}`} c="inherit">
            {one.title}
          </Anchor>
        ))}
      </nav>
      <article data-page={open.page} dangerouslySetInnerHTML={{ __html: html }} />
    </main>
  )
}
