import { createHash } from 'node:crypto'
import { and, asc, eq, isNotNull } from 'drizzle-orm'
import { BODY_OUTLINE, FIGURE_HEIGHT, FIGURE_WIDTH } from '../../shared/body-outline'
import { POSES, type Pose } from '../../shared/schemas/photo'
import { seededRandom } from '../../core/simulate'
import type { Database } from './database'
import { DEMO_CLIENTS } from './demo-people'
import { checkin, client, photo, staff } from './schema'

const SIZE = { width: 600, height: 900 }

/** A drawn silhouette before the ergometer wall: nobody's photograph. `girth` widens it, 1 as drawn. */
function silhouette(pose: Pose, girth: number, shift: number): string {
  const scale = 1.72
  const across = scale * girth * (pose === 'side' ? 0.56 : 1)
  const left = SIZE.width / 2 - (FIGURE_WIDTH / 2) * across + shift
  const top = (SIZE.height - FIGURE_HEIGHT * scale) / 2 + 20
  const tone = pose === 'back' ? '#6f7f86' : '#7d8c92'
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${SIZE.width}" height="${SIZE.height}">
    <rect width="100%" height="100%" fill="#e7e3da"/>
    <rect y="${SIZE.height - 70}" width="100%" height="70" fill="#cfc8ba"/>
    ${[1, 2, 3, 4, 5].map((i) => `<path d="M${i * 100} 0V${SIZE.height - 70}" stroke="#d9d4c9" stroke-width="3"/>`).join('')}
    <g transform="translate(${left} ${top}) scale(${across} ${scale})"><path d="${BODY_OUTLINE}" fill="${tone}"/></g>
  </svg>`
}

/** A drawn photograph as it is kept. */
export async function drawnPhotograph(pose: Pose, girth: number, shift: number) {
  const { default: sharp } = await import('sharp')
  const bytes = await sharp(Buffer.from(silhouette(pose, girth, shift)))
    .jpeg({ quality: 82 })
    .toBuffer()
  return { bytes, ...SIZE }
}

/** Photographs of the demo: drawn, and kept like any other. `keep` stores the bytes of one. */
export async function seedDemoPhotos(db: Database, keep: (id: string, bytes: Buffer) => Promise<void>): Promise<void> {
  if ((await db.select({ id: photo.id }).from(photo).limit(1)).length > 0) return
  const random = seededRandom(20261125)
  const [coach] = await db.select({ id: staff.id }).from(staff).limit(1)
  for (const person of DEMO_CLIENTS) {
    const visits = await db
      .select({ id: checkin.id, at: checkin.startedAt })
      .from(checkin)
      .innerJoin(client, eq(client.id, checkin.clientId))
      .where(and(eq(client.name, person.name), isNotNull(client.photoConsentOn)))
      .orderBy(asc(checkin.startedAt))
    for (const place of person.photographedAt ?? []) {
      const visit = visits[place]
      if (!visit || !coach) continue
      for (const pose of POSES) {
        const id = random.uuid()
        const girth = 1.04 - 0.005 * place
        const { bytes, ...size } = await drawnPhotograph(pose, girth, place % 2 === 0 ? 14 : -8)
        await keep(id, bytes)
        await db.insert(photo).values({
          id,
          checkinId: visit.id,
          pose,
          ...size,
          byteLength: bytes.length,
          digest: createHash('sha256').update(bytes).digest('hex'),
          conditions: {
            clothing: 'same',
            place: 'usual',
            light: 'room',
            distance: 'at-the-mark',
          },
          takenAt: visit.at,
          takenBy: coach.id,
        })
      }
    }
  }
}
