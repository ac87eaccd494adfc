import { screen } from '@testing-library/react'
import { useState } from 'react'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { show } from '../../testing/app'
import { FacingRulers } from './FacingRulers'
import type { LaneState } from './useLaneState'

const ruler = (readout: string, margin: number | null, more: Partial<Schemas['RulerOut']> = {}) =>
  ({
    readout,
    name: readout,
    technical: '',
    unit: 'deg',
    shown: 50,
    error: 5,
    boundary: margin === null ? null : 50 + margin,
    boundary_kind: 'limit',
    boundary_label: null,
    margin,
    typical: false,
    opposite: null,
    at_least: false,
    rounded_to: 1,
    ...more,
  }) as Schemas['RulerOut']

const lane = (variation: string, rulers: Schemas['RulerOut'][]) =>
  ({
    rung: { variation },
    detail: { rulers: { left: rulers, right: [] } },
    indices: [],
  }) as unknown as LaneState
const none = { rung: undefined, detail: undefined, indices: [] } as unknown as LaneState
const names = () => screen.getAllByRole('rowheader').map((each) => each.textContent)

/** One lane after the other. */
function Steps({ lanes }: { lanes: readonly LaneState[] }) {
  const [at, setAt] = useState(0)
  return (
    <>
      <button
        type="button"
        onClick={() => {
          setAt(at + 1)
        }}
      >
        step
      </button>
      <FacingRulers left={lanes[at] ?? none} right={none} />
    </>
  )
}

describe('the facing rulers', () => {
  it('stand worst first on opening, keep their places while stepping, and mark the worst', async () => {
    const { user } = show(
      <Steps
        lanes={[
          lane('a', [ruler('bend', 20), ruler('twist', 3)]),
          lane('a', [ruler('bend', 1), ruler('twist', 9), ruler('fold', -2)]),
          lane('b', [ruler('bend', 1), ruler('twist', 9)]),
        ]}
      />,
    )
    expect(names().slice(0, 2)).toEqual(['twist, the tightest', 'bend'])
    await user.click(screen.getByRole('button', { name: 'step' }))
    expect(names().slice(0, 3)).toEqual(['twist', 'bend', 'fold, the tightest'])
    await user.click(screen.getByRole('button', { name: 'step' }))
    expect(names().slice(0, 2)).toEqual(['bend, the tightest', 'twist'])
  })

  it('say what is past a limit and what is past a whole range', () => {
    show(
      <FacingRulers
        left={lane('a', [
          ruler('bend', -5),
          ruler('twist', -5, { boundary_kind: 'range' }),
          ruler('fold', 5, { boundary_kind: 'range' }),
        ])}
        right={none}
      />,
    )
    expect(screen.getAllByText('past the limit')).toHaveLength(1)
    expect(screen.getAllByText('past the whole range')).toHaveLength(1)
  })
})
