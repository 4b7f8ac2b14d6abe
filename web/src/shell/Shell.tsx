import { Tooltip, UnstyledButton, useMantineColorScheme } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { NavLink, Outlet, useMatch, useNavigate } from 'react-router'
import { answered, client } from '../api/client'
import { prefer } from '../words/preferred'
import { Mark } from '../marks/Wordmark'
import { Help } from './Help'
import { useCommandKeys, useCommands } from '../commands/useCommands'
import { withKey, type Group } from '../commands/list'
import { Palette } from './Palette'
import classes from './Shell.module.css'

/** What the help tells where a shot is in hand. */
const ON_BENCH: readonly Group[] = ['Controls', 'Looking', 'Match']

/** The narrow rail at the left, and the screen beside it. */
export function Shell() {
  const [help, setHelp] = useState(false)
  const [palette, setPalette] = useState(false)
  const { colorScheme, setColorScheme } = useMantineColorScheme()
  const navigate = useNavigate()
  const bench = useMatch('/shots/:id')
  const kit = useMatch('/kit/*')
  const brief = useMatch('/new')
  const here: Group[] = [
    ...(bench ? ON_BENCH : kit ? (['Kit'] as const) : brief ? (['Brief'] as const) : (['Shots'] as const)),
    'Anywhere',
  ]
  const daylight = colorScheme === 'light'
  const turn = () => setColorScheme(daylight ? 'dark' : 'light')
  useCommandKeys()
  const preferred = useQuery({
    queryKey: ['preferences'],
    queryFn: () => answered(client.GET('/api/preferences')),
  })
  if (preferred.data) prefer(preferred.data)
  useCommands({
    find: () => setPalette(true),
    help: () => setHelp(true),
    theme: turn,
    all_shots: () => void navigate('/'),
    kit: () => void navigate('/kit'),
    copies: () => void navigate('/copies'),
    preferences: () => void navigate('/preferences'),
  })

  return (
    <div className={classes.shell}>
      <nav className={classes.rail} aria-label="Screens">
        <NavLink to="/" className={classes.mark} aria-label="Dash Pebble, all shots" end>
          <Mark width={50} />
        </NavLink>
        <NavLink to="/" className={classes.link} end>
          <svg viewBox="0 0 24 18" aria-hidden="true">
            <path d="M3 3h7v5H3zM14 3h7v5h-7zM3 11h7v5H3zM14 11h7v5h-7z" />
          </svg>
          Shots
        </NavLink>
        {bench && (
          <NavLink to={bench.pathname} className={classes.link}>
            <svg viewBox="0 0 24 18" aria-hidden="true">
              <path d="M3 15 8 3h13l-5 12Z" />
              <path d="M13 12c1.5 0 1.5-6 2.5-6" className={classes.spark} />
            </svg>
            Bench
          </NavLink>
        )}
        <NavLink to="/kit" className={classes.link}>
          <svg viewBox="0 0 24 18" aria-hidden="true">
            <path d="M3 14.5c4-9.5 8-9.5 18-11M3 4c5 6 9 9 18 10.5" />
          </svg>
          Kit
        </NavLink>
        <span className={classes.spacer} />
        <NavLink to="/preferences" className={classes.link} aria-label="Prefs, preferences">
          <svg viewBox="0 0 24 18" aria-hidden="true">
            <path d="M3 4h8M15 4h6M3 9h3M10 9h11M3 14h11M18 14h3" />
            <path d="M13 2v4M8 7v4M16 12v4" className={classes.spark} />
          </svg>
          Prefs
        </NavLink>
        <NavLink to="/copies" className={classes.link}>
          <svg viewBox="0 0 24 18" aria-hidden="true">
            <path d="M4 6h9v10H4z" />
            <path d="M8 6V2h12v11h-7" />
          </svg>
          Copies
        </NavLink>
        <Tooltip
          label={withKey('theme', daylight ? 'To the dark theme, Set' : 'To the bright theme, Daylight')}
          position="right"
        >
          <UnstyledButton
            className={classes.link}
            onClick={turn}
            aria-label={`${daylight ? 'Daylight' : 'Set'}, the theme`}
          >
            <svg viewBox="0 0 24 18" aria-hidden="true">
              <circle cx="12" cy="9" r="5.5" />
              <path d="M12 3.500a5.5 5.5 0 0 1 0 11Z" className={classes.half} />
            </svg>
            {daylight ? 'Daylight' : 'Set'}
          </UnstyledButton>
        </Tooltip>
        <Tooltip label={withKey('help', 'Keys and words')} position="right">
          <UnstyledButton className={classes.link} onClick={() => setHelp(true)}>
            <b aria-hidden="true">?</b>
            Keys
          </UnstyledButton>
        </Tooltip>
      </nav>
      <div className={classes.screen}>
        {/* Everything is written anew when figures are written otherwise. */}
        {preferred.isPending ? null : (
          <Outlet key={JSON.stringify([preferred.data?.lengths, preferred.data?.stops])} />
        )}
      </div>
      <Help opened={help} here={here} onClose={() => setHelp(false)} />
      {palette && <Palette onClose={() => setPalette(false)} />}
    </div>
  )
}
