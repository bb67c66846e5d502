import { defineEventHandler, type EventHandler, type EventHandlerRequest, type H3Event } from 'h3'
import type { LinkScope } from '../../shared/schemas/link'
import type { Look } from './looked'
import type { Pace } from './pace'
import { admit } from './admit'

/** What every declaration may add. */
interface Common {
  /** How fast one caller may ask. Default `usual`. */
  pace?: Pace
}

/** Anyone, without signing in. */
interface OpenRoute extends Common {
  access: 'open'
}

/** A phone that has given the PIN of a client's link. */
interface LinkRoute extends Common {
  access: 'link'
  /** What the link has to be made for. */
  scope?: LinkScope
}

/** People of the studio: `recorder` is everyone on the staff, `coach` is coaches and leads, `lead` is leads only. */
interface StaffRoute extends Common {
  access: 'recorder' | 'coach' | 'lead'
  /**
   * `none`: a session is enough. `second`: also a second factor, where the studio asks for one. `fresh`: also proof of
   * identity within the last minutes (server/http/proof.ts).
   */
  proof: 'none' | 'second' | 'fresh'
  /** With `fresh`: also answers people who still have to set up their second factor. */
  beforeSecond?: true
  /** Also answers while the device is locked. */
  whenLocked?: true
  /** Lets in a session seen minutes ago while long work keeps the database busy. */
  session?: 'remembered'
  /** What the audit log notes as looked at, once an hour for each person and client. */
  looked?: Look
}

/** What a route demands. It is written in place as a literal, so that the build and the tests can read it. */
export type RouteAccess = OpenRoute | LinkRoute | StaffRoute

/**
 * Defines a route. The demands are checked after the router has matched, so they hold however the address was written.
 * Every file in server/api and server/routes exports one; the build refuses any other (scripts/lib/declared-routes.mjs).
 * @example export default defineRoute({ access: 'coach', proof: 'second' }, (event) => listClients(event))
 */
export function defineRoute<Answer>(
  access: RouteAccess,
  handler: (event: H3Event<EventHandlerRequest>) => Answer | Promise<Answer>,
): EventHandler<EventHandlerRequest, Promise<Answer>> {
  return defineEventHandler(async (event) => {
    await admit(event, access)
    return handler(event)
  })
}
