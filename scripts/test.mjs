/** npm test: installs what is missing, then lint, format, types, build and every test; ends with one line of counts. */
import { readFileSync, mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { ensureChromium } from './lib/chromium.mjs'
import { ensureBuilt, ensureInstalled, ROOT, run } from './lib/prepare.mjs'

let passed = 0
let failed = 0

function check(name, action) {
  const from = Date.now()
  try {
    action()
    passed += 1
    console.log(`${name}: passed (${((Date.now() - from) / 1000).toFixed(0)} s)`)
  } catch (error) {
    failed += 1
    console.error(`${name}: failed. ${error.message}`)
  }
}

function vitest() {
  const report = join(ROOT, '.cache/test-report.json')
  mkdirSync(join(ROOT, '.cache'), { recursive: true })
  let problem = null
  try {
    run('npx', ['vitest', 'run', '--reporter=dot', '--reporter=json', `--outputFile.json=${report}`])
  } catch (error) {
    problem = error
  }
  const { numPassedTests, numFailedTests } = JSON.parse(readFileSync(report, 'utf8'))
  passed += numPassedTests
  failed += numFailedTests
  if (problem && numFailedTests === 0) throw problem
}

ensureInstalled()
check('Chromium', ensureChromium)
check('Lint', () => run('npm', ['run', '--silent', 'lint']))
check('Format', () => run('npm', ['run', '--silent', 'format:check'], { stdio: ['ignore', 'ignore', 'inherit'] }))
check('Build', ensureBuilt)
check('Types', () => run('npm', ['run', '--silent', 'typecheck']))
check('Tests', vitest)
console.log(`${passed} passed, ${failed} failed`)
process.exitCode = failed === 0 ? 0 : 1
