import { expose } from 'comlink'
import { standingOf, teamRunner, type Runner } from '#core/challenge'

const api = {
  /** The standing of each group, and of the teams among all of them. */
  stand: (groups: { name: string; runners: Runner[] }[], teams: { name: string; members: Runner[] }[]) => ({
    groups: groups.map(({ name, runners }) => ({ name, standings: standingOf(runners) })),
    teams: standingOf(teams.flatMap(({ name, members }) => teamRunner(name, members) ?? [])),
  }),
}

export type StandingWorker = typeof api

expose(api)
