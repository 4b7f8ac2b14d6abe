import type { FloorAnswer } from '../api/client'
import type { Carried } from './useFloor'
import { tenth } from './steps'

/** A light that is aimed elsewhere than at the mark stays aimed there while it is carried. */
export const keptAim = ({ turned_says, aim }: FloorAnswer['lights'][number]): Pick<Carried, 'aim_m'> =>
  turned_says ? { aim_m: [tenth(aim.x_m), tenth(aim.y_m), tenth(aim.z_m)] } : {}
