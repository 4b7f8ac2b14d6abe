import { useQuery } from '@tanstack/react-query'
import { answered, client, type FlashUnit } from '../api/client'
import { TraceDialog, type Brought } from './TraceDialog'

type Props = {
  unit: FlashUnit
  brought: Brought
  busy: boolean
  onFile: (recording: NonNullable<FlashUnit['recordings']>[number]) => void
  onClose: () => void
}

/** The recording beside what the unit was thought to do, as it stands now. */
export function Filing(props: Props) {
  const sheet = useQuery({
    queryKey: ['sheet', 1, props.unit],
    queryFn: () =>
      answered(
        client.POST('/api/units/sheet', { params: { query: { frames_per_second: 1 } }, body: props.unit }),
      ),
  }).data
  return sheet ? <TraceDialog {...props} sheet={sheet} /> : null
}
