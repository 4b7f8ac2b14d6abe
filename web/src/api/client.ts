import createClient from 'openapi-fetch'
import type { components, paths } from './schema'

type Schemas = components['schemas']
export type Shot = Schemas['Shot']
export type FigureKind = Schemas['Words']['kind']
export type Part = Schemas['Part']
export type Flash = Schemas['Flash']
export type SetLamp = Schemas['SetLamp']
export type LightForecast = Schemas['LightForecast']
export type Tone = Schemas['Tone']
export type GroupShape = Schemas['GroupShape']
export type GroupAnswer = Schemas['GroupAnswer']
export type DragAnswer = Schemas['DragAnswer']
export type Caution = Schemas['Caution']
export type Around = Schemas['Around']
export type Lamp = Schemas['Lamp']
export type Movement = Schemas['Movement']
export type Reading = Schemas['Reading']
export type MeterReading = Schemas['MeterReading']
export type Intent = Schemas['Intent']
export type Kit = Schemas['Kit']
export type Forecast = Schemas['Forecast']
export type PartForecast = Schemas['PartForecast']
export type Finding = Schemas['Finding']
export type Remedy = Schemas['Remedy']
export type Rung = Schemas['Rung']
export type Strip = Schemas['Strip']
export type BenchAnswer = Schemas['BenchAnswer']
export type ShotAnswer = Schemas['ShotAnswer']
export type ShotCard = Schemas['ShotCard']
export type Problem = Schemas['Problem']
export type Kind = Schemas['Kind']
export type Item = Schemas['Item']
export type ItemAnswer = Schemas['ItemAnswer']
export type ItemCard = Schemas['ItemCard']
export type FlashUnit = Schemas['FlashUnit']
export type Filter = Schemas['Filter']
export type Preferences = Schemas['Preferences']
export type Packed = Schemas['Packed']
export type ShotName = Schemas['ShotName']
export type Sheet = Schemas['Sheet']
export type AtPower = Schemas['AtPower']
export type Source = Schemas['Source']
export type Guide = Schemas['Guide']
export type TraceAnswer = Schemas['TraceAnswer']
export type Recording = Schemas['Recording']
export type Moved = Schemas['Moved']
export type Held = Schemas['Held']
export type HoldAnswer = Schemas['HoldAnswer']
export type Equivalent = Schemas['Equivalent']
export type Way = Schemas['Way']
export type Version = Schemas['VersionSaid']
export type Sky = Schemas['Sky']
export type SkyDay = Schemas['SkyDay']
export type Severity = Schemas['Severity']
export type Wish = Schemas['Wish']
export type Priority = Schemas['Priority']
export type Setup = Schemas['Setup']
export type MatchRow = Schemas['MatchRow']
export type NearestRow = Schemas['NearestRow']
export type MatchAnswer = Schemas['MatchAnswer']
export type MatchEvent = Schemas['MatchEvent']
export type MarkMap = Schemas['MarkMap']
export type UnitMark = Schemas['Mark']
export type CrewRow = Schemas['CrewRow']
export type JobShot = Schemas['JobShot']
export type JobAnswer = Schemas['JobAnswer']
export type JobEvent = Schemas['JobEvent']
export type Copy = Schemas['Copy']
export type Inside = Schemas['Inside']
export type FloorAnswer = Schemas['FloorAnswer']
export type FloorRequest = Schemas['FloorRequest']
export type LanesAnswer = Schemas['LanesAnswer']
export type Answers = Schemas['Answers']
export type Briefed = Schemas['Briefed']
export type ActivityCard = Schemas['ActivityCard']
export type Phase = Schemas['Phase']
export type WhenTaken = Schemas['WhenTaken']
export type StageAnswer = Schemas['StageAnswer']
export type Composition = Schemas['Composition']
export type Person = Schemas['Person']
export type OwnPictureOf = Schemas['OwnPicture']
export type Pose = Schemas['Pose']
export type Place = Schemas['Place']
export type Prop = Schemas['Prop']
export type Outfit = Schemas['Outfit']
export type Hair = Schemas['Hair']
export type Build = Schemas['Build']

/** A refusal of the program, in its own sentence. */
export class Refusal extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail)
  }
}

/** The program did not answer at all. */
export class Silence extends Error {
  constructor() {
    super(
      'Dash Pebble does not answer. What was saved is safe; start the program again and this page goes on.',
    )
  }
}

export const client = createClient<paths>({ baseUrl: '/' })

/** Data of an answer; throws a {@link Refusal} or {@link Silence}. */
export async function answered<T>(
  request: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<T> {
  const { data, error, response } = await request.catch((failure: unknown) => {
    if (failure instanceof DOMException && failure.name === 'AbortError') throw failure
    throw new Silence()
  })
  if (response.ok) return data as T
  throw new Refusal(error as Problem)
}

export type Layers = 'both' | 'flash' | 'ambient'
export type Crop = { left: number; top: number; size: number }
export const WHOLE: Crop = { left: 0, top: 0, size: 1 }

/**
 * The simulated frame of a shot, ready for a canvas. One that shall be here soon is narrower where who stands there was not
 * drawn before.
 */
export async function picture(
  shot: Shot,
  width: number,
  layers: Layers,
  crop: Crop,
  { signal, soon = false }: { signal?: AbortSignal | undefined; soon?: boolean } = {},
): Promise<ImageData> {
  const query = new URLSearchParams({
    width: String(width),
    soon: String(soon),
    layers,
    left: String(crop.left),
    top: String(crop.top),
    size: String(crop.size),
  })
  const response = await asked(`/api/picture?${query}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', accept: 'application/octet-stream' },
    body: JSON.stringify(shot),
    ...(signal && { signal }),
  })
  const pixels = new Uint8ClampedArray(await response.arrayBuffer())
  return new ImageData(pixels, Number(response.headers.get('picture-width')))
}

/** Keeps a picture of a place, and says under which name. */
export async function bringPicture(file: File): Promise<{ id: string }> {
  const response = await asked('/api/stage/pictures', {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream' },
    body: file,
  })
  return (await response.json()) as { id: string }
}

/** Anything with a body that is not JSON, asked as the rest is. */
export async function asked(path: string, init: RequestInit): Promise<Response> {
  const response = await fetch(path, init).catch(() => {
    throw new Silence()
  })
  // Too much at once is over in a moment; whoever gave up meanwhile is not kept waiting.
  if (response.status === 503 && !init.signal?.aborted) {
    const seconds = Number(response.headers.get('retry-after') ?? 1)
    await new Promise((over) => window.setTimeout(over, seconds * 1000))
    return asked(path, init)
  }
  if (!response.ok) throw new Refusal((await response.json()) as Problem)
  return response
}
