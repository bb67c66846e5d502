import { server, browser, page, go } from './zz-look.mjs'
const shot = (n) => page.screenshot({ path: `/tmp/a-${n}.png` })
const api = (m, p, b) => page.evaluate(async (m, p, b) => { const r = await fetch(p, { method: m, headers: { 'content-type': 'application/json' }, body: b ? JSON.stringify(b) : undefined }); return { s: r.status, b: await r.json() } }, m, p, b)
await go('/')
const list = (await api('GET', '/api/clients')).b
const lines = list.clients ?? list.lines ?? list
console.log(lines.map((l) => [l.name, l.id, l.neutral, l.birthDate].join(' ')).join('\n'))
const maren = lines.find((l) => l.name === 'Maren Osk')
const c = (await api('GET', `/api/clients/${maren.id}`)).b
const { id, archived, ...rec } = c
console.log(await api('PATCH', `/api/clients/${maren.id}`, { ...rec, flags: ['fainting', 'anticoagulants', 'kidney-disease'] }))
await go('/'); await shot('floor')
await go(`/clients/${maren.id}`); await shot('client')
await go(`/clients/${maren.id}/plan`); await shot('plan')
await go(`/clients/${maren.id}/edit`); await shot('edit')
const quiet = lines.find((l) => l.neutral)
if (quiet) { await go(`/clients/${quiet.id}`); await shot('neutral'); await go(`/clients/${quiet.id}/from-home`); await shot('home') }
await browser.close(); await server.remove()
