import type { Shot } from '../api/client'
import { choices } from '../words/choices'

/** What a picture is for, which decides how much blur is too much. */
export const USAGES = choices<NonNullable<Shot['usage']>>({
  web: 'the web or a phone',
  print: 'a print',
  screen: 'a screen that it fills',
  large_print: 'a large print',
  pixel: 'looked at pixel by pixel',
})
