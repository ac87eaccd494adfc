/**
 * Forty faults of four kinds, drawn from the sources by a fixed seed: what the tests do not notice is told.
 *
 *   node faults.mjs --list       the faults drawn
 *   node faults.mjs [--seed N]   put each in, run the tests, take it out again
 */
import { execFileSync } from 'node:child_process'
import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join, relative } from 'node:path'
import ts from 'typescript'

const SRC = join(import.meta.dirname, 'src')
const OF_A_KIND = 10
const BESIDE_THE_POINT = /\.test\.tsx?$|\.d\.ts$|^api\/schema|^common\/i18n\/|^testing\/|^theme\//
const COMPARED = {
  '===': '!==',
  '!==': '===',
  '<': '<=',
  '<=': '<',
  '>': '>=',
  '>=': '>',
}

function* sources(folder = SRC) {
  for (const each of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, each.name)
    if (each.isDirectory()) yield* sources(path)
    else if (/\.tsx?$/.test(each.name) && !BESIDE_THE_POINT.test(relative(SRC, path))) yield path
  }
}

/** Looks and types are no behaviour. */
function isLook(node) {
  for (let at = node; at !== undefined; at = at.parent) {
    if (ts.isTypeNode(at) || ts.isImportDeclaration(at)) return true
    if (ts.isJsxAttribute(at) && ['sx', 'style', 'slotProps'].includes(at.name.getText())) return true
    if (ts.isCallExpression(at) && ts.isCallExpression(at.expression) && /^styled\b/.test(at.getText()))
      return true
  }
  return false
}

function* faultsIn(path) {
  const text = readFileSync(path, 'utf8')
  const file = ts.createSourceFile(path, text, ts.ScriptTarget.Latest, true)
  const found = []
  const add = (kind, node, instead) => {
    const start = node.getStart()
    const { line } = file.getLineAndCharacterOfPosition(start)
    found.push({ kind, path: relative(SRC, path), line: line + 1, start, was: node.getText(), instead })
  }
  const walk = (node) => {
    if (!isLook(node)) {
      if (ts.isBinaryExpression(node)) {
        const sign = node.operatorToken.getText()
        if (sign in COMPARED) add('comparison', node.operatorToken, COMPARED[sign])
      }
      if (ts.isStringLiteral(node) && (node.text === 'left' || node.text === 'right')) {
        add('side', node, node.text === 'left' ? "'right'" : "'left'")
      }
      if (
        ts.isCallExpression(node) &&
        /\.filter$/.test(node.expression.getText()) &&
        node.arguments.length === 1
      ) {
        const [test] = node.arguments
        if (test.getText() !== 'Boolean') add('filter', test, `(...each) => !(${test.getText()})(...each)`)
      }
      if (ts.isJsxAttribute(node) && /^on[A-Z]/.test(node.name.getText()) && node.initializer !== undefined) {
        add('handler', node.initializer, '{() => undefined}')
      }
    }
    ts.forEachChild(node, walk)
  }
  walk(file)
  yield* found
}

/** Numbers from 0 to 1, the same for the same seed. */
function numbers(seed) {
  let state = seed
  return () => {
    state = (state + 0x6d2b79f5) | 0
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state)
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296
  }
}

function drawn(seed) {
  const next = numbers(seed)
  const all = [...sources()].sort().flatMap((path) => [...faultsIn(path)])
  return ['comparison', 'side', 'filter', 'handler'].flatMap((kind) => {
    const left = all.filter((fault) => fault.kind === kind)
    return Array.from(
      { length: Math.min(OF_A_KIND, left.length) },
      () => left.splice(Math.floor(next() * left.length), 1)[0],
    )
  })
}

function passes(tests) {
  try {
    const command = ['vitest', 'run', '--bail', '1', '--silent', '--passWithNoTests', ...tests]
    execFileSync('npx', command, { cwd: import.meta.dirname, stdio: 'ignore' })
    return true
  } catch {
    return false
  }
}

/** Whether the tests notice: those of its own folder first, which are quick, then all. */
function isCaught({ path, start, was, instead }) {
  const file = join(SRC, path)
  const before = readFileSync(file, 'utf8')
  writeFileSync(file, before.slice(0, start) + instead + before.slice(start + was.length))
  try {
    return !passes([`src/${path.split('/').slice(0, 2).join('/')}`]) || !passes([])
  } finally {
    writeFileSync(file, before)
  }
}

const at = process.argv.indexOf('--seed')
const faults = drawn(at < 0 ? 15 : Number(process.argv[at + 1]))
const told = ({ kind, path, line, was, instead }) =>
  `${kind}  ${path}:${line}  ${was.replace(/\s+/g, ' ').slice(0, 60)}  →  ${instead.replace(/\s+/g, ' ').slice(0, 60)}`
if (process.argv.includes('--list')) for (const fault of faults) console.log(told(fault))
else {
  let caught = 0
  for (const fault of faults) {
    const noticed = isCaught(fault)
    caught += noticed ? 1 : 0
    console.log(`${noticed ? 'caught' : 'MISSED'}  ${told(fault)}`)
  }
  console.log(`${caught} of ${faults.length} faults were caught`)
}
