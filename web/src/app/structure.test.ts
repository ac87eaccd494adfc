import { describe, expect, it } from 'vitest'
import { en } from '../common/i18n/en'

const sources = import.meta.glob<string>('../**/*.{ts,tsx}', {
  query: '?raw',
  import: 'default',
  eager: true,
})

/** What each folder may use besides packages and itself; features never use each other. */
const MAY_USE: Record<string, readonly string[]> = {
  api: [],
  figure: ['api'],
  theme: ['api', 'figure'],
  common: ['api', 'theme'],
  features: ['api', 'common', 'figure', 'theme'],
}

/** A module's path below `src`, from the path the glob gives it (which starts in `app`). */
function place(path: string): string {
  return path.startsWith('../') ? path.slice(3) : `app/${path.replace(/^\.\//, '')}`
}

/** Modules a source imports by relative path, as paths below `src`. */
function imports(path: string, text: string): string[] {
  const folder = place(path).split('/').slice(0, -1)
  return [...text.matchAll(/from '(\.[^']+)'/g)].map((match) => {
    const parts = [...folder]
    for (const part of (match[1] ?? '').split('/')) {
      if (part === '..') parts.pop()
      else if (part !== '.') parts.push(part)
    }
    return parts.join('/')
  })
}

describe('the folders of the web application', () => {
  it('are all looked at', () => {
    expect(Object.keys(sources).length).toBeGreaterThan(40)
  })

  it('use only what stands below them, and features never each other', () => {
    for (const [path, text] of Object.entries(sources)) {
      const [top, feature] = place(path).split('/')
      // Tests of a screen show it in the whole application.
      if (top === undefined || top === 'app' || top === 'testing' || /\.test\.tsx?$/.test(path)) continue
      for (const target of imports(path, text)) {
        const own = top === 'features' ? `features/${feature ?? ''}/` : `${top}/`
        const allowed = target.startsWith(own) || MAY_USE[top]?.some((each) => target.startsWith(each))
        expect(allowed, `${place(path)} uses ${target}`).toBe(true)
      }
    }
  })

  it('name no address outside this application', () => {
    for (const [path, text] of Object.entries(sources)) {
      if (/\.test\.tsx?$/.test(path)) continue
      const outside = text.match(/https?:\/\/(?!www\.w3\.org)[^\s'"`]+/)
      expect(outside, place(path)).toBeNull()
    }
  })
})

describe('the colours of the interface', () => {
  it('stand in the theme, which has them for both lights', () => {
    for (const [path, text] of Object.entries(sources)) {
      if (/^(theme|testing)\//.test(place(path)) || /\.test\.tsx?$/.test(path)) continue
      expect(text.match(/['"`( ]#[0-9A-Fa-f]{3,8}\b/), place(path)).toBeNull()
    }
  })
})

describe('the words of the interface', () => {
  const leaves = (value: unknown, path: string): [string, string][] =>
    typeof value === 'string'
      ? [[path, value]]
      : Object.entries(value as Record<string, unknown>).flatMap(([key, each]) =>
          leaves(each, `${path}.${key}`),
        )

  it('are never empty and have no stray spaces', () => {
    for (const [path, text] of leaves(en, 'en')) {
      expect(text.length, path).toBeGreaterThan(0)
      // One line joins a sentence that follows it.
      if (path !== 'en.responses.wouldChange') expect(text, path).toBe(text.trim())
    }
  })
})
