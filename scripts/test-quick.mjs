/** npm run test:quick: what a change of every day needs: core and the pieces of the app, and the types they are tested by. */
import { spawn } from 'node:child_process'
import { ensureInstalled, ROOT } from './lib/prepare.mjs'

ensureInstalled()
const from = Date.now()

/** Runs a command; resolves with the code it ended with. */
function ended(command, args) {
  return new Promise((done) => {
    spawn(command, args, { cwd: ROOT, stdio: 'inherit' }).once('exit', (code) => done(code ?? 1))
  })
}

const codes = await Promise.all([
  ended('npx', ['vitest', 'run', '--project', 'core', '--reporter=dot']),
  ended('node', ['scripts/types.mjs', '--tests']),
])
console.log(
  `${codes.every((code) => code === 0) ? 'passed' : 'failed'} in ${((Date.now() - from) / 1000).toFixed(0)} s`,
)
process.exitCode = Math.max(...codes)
