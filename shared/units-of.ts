import type { Units } from '../core/units'
import type { Me } from './schemas/account'

/** The units a person reads in: their own, else the studio's. */
export function unitsOf({ own, studio }: Pick<Me, 'own' | 'studio'>): Units {
  return { mass: own.massUnit ?? studio.massUnit, length: own.lengthUnit ?? studio.lengthUnit }
}
