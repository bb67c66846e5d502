import { ageInYears } from '../calendar'
import { cautionFacts, cautionsFor, type PersonCaution } from '../cautions'
import { corrected as withoutFault, type Correction } from '../devices/block'
import { estimate, type Estimate, type EstimateSettings } from '../equations/estimate'
import type { Equation, KnownMeasures } from '../equations/equation'
import { bmi } from '../equations/measures'
import { militaryRounded } from '../equations/military-rounding'
import { noTableBecause, standings, type Standing } from '../norms'
import { joinLog, policyOf, reconcile, sessionOfLog, valueOf, type LoggedReading, type SessionState } from '../readings'
import { asSite, isFold, type FoldSiteId, type SiteId } from '../sites'
import { massToKg } from '../units'
import { optionsOf, dayOf, DEFAULT_CHOICES, type CheckinFacts, type Choices, type Person } from './facts'
import { adjustedFatFreeMassIndex, correctedGirth, fatFreeMassIndex, skeletalMuscleKg } from './indexes'
import type { CorrectedGirths } from './indexes'
import { splitWeight, type Masses } from './masses'

/** Indexes of size and shape; null where something for them is missing. */
export interface Indexes {
  bmi: number | null
  ffmi: number | null
  adjustedFfmi: number | null
  /** Which girth stands for the waist. */
  waistSite: 'waist' | 'waist-mid' | 'abdomen' | null
  waistToHip: number | null
  waistToHeight: number | null
  corrected: CorrectedGirths
  muscleKg: number | null
}

/** The computed result of a check-in. Every number unrounded; null where it cannot be said yet. */
export interface Composition {
  session: SessionState
  ageYears: number
  weightKg: number | null
  heightCm: number | null
  /** Value of every site read: folds mm, girths cm. */
  values: Readonly<Partial<Record<SiteId, number>>>
  /** What was taken off every fold for its caliper; null: nothing. */
  correction: Correction | null
  /** Sum of the protocol's folds, mm, once each has a value; null for sets without folds. */
  sumMm: number | null
  /** Sites without any reading, and sites whose readings have not settled. */
  missing: SiteId[]
  unsettled: SiteId[]
  /** Answers of every equation given, in their order. */
  estimates: Estimate[]
  /** The chosen one, or the one the protocol is meant for; null: none fits. */
  estimate: Estimate | null
  masses: Masses | null
  indexes: Indexes
  standings: Standing[]
  /** Why no table says anything about this person at all; null where tables count. */
  noStandings: string | null
  cautions: PersonCaution[]
}

function lastLive(log: readonly LoggedReading[], measure: 'weight' | 'height'): LoggedReading | null {
  return log.findLast((reading) => reading.site === measure && !reading.struck) ?? null
}

function weightOf(log: readonly LoggedReading[]): number | null {
  const reading = lastLive(log, 'weight')
  return reading ? massToKg(reading.value, reading.unit === 'lb' ? 'lb' : 'kg') : null
}

/** The height of this visit by the policy of heights (of three that do not agree the middle one), else the one on record. */
function heightOf(log: readonly LoggedReading[], person: Person): number | null {
  const trials = log.filter((reading) => reading.site === 'height' && !reading.struck).map(valueOf)
  if (trials.length === 0) return person.heightCm
  return reconcile(trials, policyOf('height')).value ?? person.heightCm
}

function indexesOf(
  values: Composition['values'],
  facts: { person: Person; ageYears: number; weightKg: number | null; heightCm: number | null; leanKg: number | null },
): Indexes {
  const { person, ageYears, weightKg, heightCm, leanKg } = facts
  const waistSite = (['waist', 'waist-mid', 'abdomen'] as const).find((site) => values[site] !== undefined) ?? null
  const waist = waistSite ? (values[waistSite] ?? null) : null
  const limb = (girth: SiteId, fold: FoldSiteId | undefined) => {
    const [cm, mm] = [values[girth], fold && values[fold]]
    return cm !== undefined && mm !== undefined ? correctedGirth(cm, mm) : null
  }
  const corrected = {
    arm: limb('arm-relaxed', values['triceps-kin'] !== undefined ? 'triceps-kin' : 'triceps'),
    thigh: limb('mid-thigh-girth', values['front-thigh'] !== undefined ? 'front-thigh' : 'thigh'),
    calf: limb('calf-girth', 'medial-calf'),
  }
  const index = weightKg !== null && heightCm !== null ? bmi(weightKg, heightCm) : null
  const { arm, thigh, calf } = corrected
  const limbs = arm !== null && thigh !== null && calf !== null && (index === null || index < 30)
  return {
    bmi: index,
    ffmi: leanKg !== null && heightCm !== null ? fatFreeMassIndex(leanKg, heightCm) : null,
    adjustedFfmi: leanKg !== null && heightCm !== null ? adjustedFatFreeMassIndex(leanKg, heightCm) : null,
    waistSite,
    waistToHip: waist !== null && values.hip !== undefined ? waist / values.hip : null,
    waistToHeight: waist !== null && heightCm !== null ? waist / heightCm : null,
    corrected,
    muscleKg:
      limbs && heightCm !== null
        ? skeletalMuscleKg({ arm, thigh, calf }, { sex: person.sex, ageYears, heightCm })
        : null,
  }
}

/** The waist by the level it was taken at: a table is made on one. The navel is neither. */
function waistNorms({ waist, 'waist-mid': mid, hip }: Composition['values']) {
  return {
    ...(waist === undefined ? {} : { waist }),
    ...(mid === undefined ? {} : { 'waist-mid': mid }),
    ...(waist === undefined || hip === undefined ? {} : { 'waist-to-hip': waist / hip }),
    ...(mid === undefined || hip === undefined ? {} : { 'waist-mid-to-hip': mid / hip }),
  }
}

/** What the person's own cautions do to an estimate: withhold it, with the reason. */
function withheld(result: Estimate, cautions: readonly PersonCaution[]): Estimate {
  if (result.status === 'missing' || result.status === 'refused') return result
  const has = (effect: PersonCaution['effects'][number]) => cautions.find(({ effects }) => effects.includes(effect))
  const caution =
    has('no-percent') ?? (result.equation.population === 'young' ? undefined : has('children-only')) ?? null
  return caution ? { status: 'refused', equation: result.equation, reason: caution.sentence } : result
}

function sitesNeeded({ equation }: Estimate): SiteId[] {
  return equation.inputs.flatMap((input) => asSite(input) ?? [])
}

/** True when these sites are all an equation needs, and it needs one. */
function isFed(estimate: Estimate, sites: readonly SiteId[]): boolean {
  const needed = sitesNeeded(estimate)
  return needed.length > 0 && needed.every((site) => sites.includes(site))
}

function chosenOf(estimates: readonly Estimate[], facts: CheckinFacts, choices: Choices): Estimate | null {
  const reached = (result: Estimate) => result.status === 'ok' || result.status === 'caution'
  const byId = (id: string) => estimates.find(({ equation }) => equation.id === id)
  const own = choices.equationId ? byId(choices.equationId) : undefined
  // A visit with other sites than the choice needs falls back to its own equation; unfinished ones wait for theirs.
  if (own && (own.status !== 'missing' || sitesNeeded(own).every((site) => facts.protocol.sites.includes(site))))
    return own
  // The protocol's own equation even while sites are missing: a stand-in would change the percent in mid-session.
  const { usual, sites } = facts.protocol
  const named = usual?.[facts.person.sex]
  const fed = (named ? byId(named) : undefined) ?? estimates.find((one) => isFed(one, sites))
  return fed ?? estimates.find(reached) ?? estimates[0] ?? null
}

/** What the equations work on. */
function knownMeasures(values: Composition['values'], about: Omit<KnownMeasures, SiteId>): KnownMeasures {
  const known: KnownMeasures = { ...values, age: about.age }
  if (about.weight !== undefined) known.weight = about.weight
  if (about.height !== undefined) known.height = about.height
  return known
}

function settingsOf({ person }: CheckinFacts, choices: Choices): EstimateSettings {
  return { person, conversion: choices.conversion, options: optionsOf(person, choices) }
}

/** What the readings of a check-in come to, whoever is measured and by whatever equation. */
type ReadVisit = Pick<Composition, 'session' | 'weightKg' | 'heightCm'>

function readVisit(facts: CheckinFacts): ReadVisit {
  const log = joinLog(facts.readings, facts.strikes)
  return {
    session: sessionOfLog(facts.protocol, log, facts.skips, facts.policies),
    weightKg: weightOf(log),
    heightCm: heightOf(log, facts.person),
  }
}

/**
 * From a check-in's facts and a set of equations to everything a page shows about it (see composeCheckin).
 * @param read what the same readings came to before, on other terms: half of the work
 */
export function composeWith(
  equations: readonly Equation[],
  facts: CheckinFacts,
  choices: Choices = DEFAULT_CHOICES,
  read: ReadVisit = readVisit(facts),
): Composition {
  const { person } = facts
  const { session, weightKg } = read
  const ageYears = facts.terms?.ageYears ?? ageInYears(person.birthDate, dayOf(facts))
  const heightCm = facts.terms ? facts.terms.heightCm : read.heightCm
  const values: Partial<Record<SiteId, number>> = {}
  for (const { site, value } of session.sites) {
    if (value === null) continue
    values[site] = facts.correction && isFold(site) ? withoutFault(value, facts.correction) : value
  }

  const about = { age: ageYears, weight: weightKg ?? undefined, height: heightCm ?? undefined }
  const known = knownMeasures(values, about)
  const measures = choices.militaryRounding ? militaryRounded(known) : known
  const settings = settingsOf(facts, choices)
  const index = weightKg !== null && heightCm !== null ? bmi(weightKg, heightCm) : null
  const folds = session.sites.filter(({ site }) => isFold(site))
  const visit = {
    bmi: index,
    largestFoldMm: folds.length > 0 ? Math.max(...folds.map(({ value }) => value ?? 0)) : null,
  }
  const before = cautionsFor(cautionFacts(person, dayOf(facts), visit))
  const mine = equations.filter(({ sex }) => sex === person.sex || sex === 'both')
  const estimates = mine.map((equation) => withheld(estimate(equation, measures, settings), before))
  const chosen = chosenOf(estimates, facts, choices)
  const percent = chosen && 'percent' in chosen ? chosen.percent : null
  const masses = percent !== null && weightKg !== null ? splitWeight(weightKg, percent) : null
  const unread = session.sites.filter(({ status, skipped }) => status === 'empty' && skipped === null)
  const indexes = indexesOf(values, { person, ageYears, weightKg, heightCm, leanKg: masses?.leanKg ?? null })

  return {
    session,
    ageYears,
    weightKg,
    heightCm,
    values,
    sumMm:
      folds.length === 0 || folds.some(({ value }) => value === null)
        ? null
        : folds.reduce((sum, { site }) => sum + (values[site] ?? 0), 0),
    correction: facts.correction ?? null,
    missing: unread.map(({ site }) => site),
    unsettled: session.sites
      .filter(({ status }) => status === 'partial' || status === 'disputed')
      .map(({ site }) => site),
    estimates,
    estimate: chosen,
    masses,
    indexes,
    standings: standings(
      {
        ...(percent === null ? {} : { percent }),
        ...(indexes.bmi === null ? {} : { bmi: indexes.bmi }),
        ...waistNorms(values),
        ...(indexes.waistToHeight === null ? {} : { 'waist-to-height': indexes.waistToHeight }),
      },
      {
        sex: person.sex,
        ageYears,
        athlete: person.athlete ?? false,
        pregnant: (person.flags ?? []).includes('pregnant'),
      },
    ),
    noStandings: noTableBecause({ ageYears, pregnant: (person.flags ?? []).includes('pregnant') }),
    cautions: cautionsFor(cautionFacts(person, dayOf(facts), { ...visit, percent, caliper: facts.caliper ?? null })),
  }
}
