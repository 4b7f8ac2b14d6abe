import {
  createTheme,
  defaultVariantColorsResolver,
  type CSSVariablesResolver,
  type MantineColorsTuple,
} from '@mantine/core'

/** One role, one colour in each theme: Set for a dark studio, Daylight for sun on the screen. */
const ROLES = {
  ground: ['#11151a', '#efeae0'],
  panel: ['#181d24', '#fbf8f1'],
  raised: ['#212831', '#ffffff'],
  line: ['#2f3843', '#d5cdbd'],
  text: ['#ece8df', '#1a1d21'],
  muted: ['#9aa5b1', '#5c6570'],
  flash: ['#ffb267', '#a9480f'],
  ambient: ['#63c3d8', '#0b6479'],
  movement: ['#b7a1ff', '#5838b8'],
  fine: ['#9ed39b', '#2d6a35'],
  trouble: ['#ff8a75', '#b3261e'],
} as const

const role = (theme: 0 | 1) =>
  Object.fromEntries(Object.entries(ROLES).map(([name, pair]) => [`--dp-${name}`, pair[theme]]))

const surfaces = {
  '--mantine-color-body': 'var(--dp-ground)',
  '--mantine-color-text': 'var(--dp-text)',
  '--mantine-color-dimmed': 'var(--dp-muted)',
  '--mantine-color-default': 'var(--dp-raised)',
  '--mantine-color-default-hover': 'var(--dp-panel)',
  '--mantine-color-default-border': 'var(--dp-line)',
  '--mantine-color-error': 'var(--dp-trouble)',
  '--mantine-color-placeholder': 'var(--dp-muted)',
}

export const variables: CSSVariablesResolver = () => ({
  variables: { '--dp-radius': '14px', '--dp-gap': '8px' },
  dark: { ...role(0), ...surfaces },
  light: { ...role(1), ...surfaces },
})

const stone: MantineColorsTuple = [
  '#fff4e8',
  '#ffe6cd',
  '#ffcd9b',
  '#ffb267',
  '#f49a45',
  '#dd7c26',
  '#c2621a',
  '#a9480f',
  '#87390c',
  '#662b09',
]

/** Greys of the dark theme, for what the library draws itself. */
const slate: MantineColorsTuple = [
  '#ece8df',
  '#c9ced4',
  '#9aa5b1',
  '#7f8a96',
  '#2f3843',
  '#28303a',
  '#212831',
  '#181d24',
  '#11151a',
  '#0c0f13',
]

export const theme = createTheme({
  primaryColor: 'stone',
  primaryShade: { dark: 3, light: 7 },
  autoContrast: true,
  // Both shades of the primary colour carry the ground of their theme best.
  variantColorResolver: (input) => ({
    ...defaultVariantColorsResolver(input),
    ...(input.variant === 'filled' && { color: 'var(--dp-ground)' }),
  }),
  colors: { stone, dark: slate },
  defaultRadius: 'md',
  radius: { xs: '6px', sm: '10px', md: '14px', lg: '18px', xl: '999px' },
  fontFamily: "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif",
  fontFamilyMonospace: "'Atkinson Hyperlegible Mono Variable', ui-monospace, monospace",
  headings: { fontFamily: "'Bricolage Grotesque Variable', system-ui, sans-serif", fontWeight: '700' },
  fontSizes: { xs: '12px', sm: '13px', md: '15px', lg: '17px', xl: '20px' },
  respectReducedMotion: true,
  focusRing: 'always',
  components: {
    Popover: { defaultProps: { shadow: 'md', radius: 'md' } },
    Modal: { defaultProps: { closeButtonProps: { 'aria-label': 'Close' } } },
    Tooltip: { defaultProps: { openDelay: 350 } },
  },
})
