import { describe, expect, it } from 'vitest'
import { registerRow as row } from '@/test/register'
import { USUAL } from './columns'
import { csvOf, groupsOf, queryOf, viewOf } from './view'

const rows = [
  row('hazard', { owner: 'Ana', failed: 3, came: 9, measured: 'NEEDS_WORK' }),
  row('pledge', { owner: 'Rui', department: 'Friends', source: 'Register', systems: ['Board'] }),
  row('climate', { owner: 'Ana', failed: 12, came: 12, measured: 'NOT_WORKING' }),
]
const ids = (query: Record<string, string>) =>
  groupsOf(viewOf(query), rows).map((group) => [group.name, ...group.rows.map((one) => one.id)])

describe('a view of the register', () => {
  it('is the same when its address is read again', () => {
    const query = {
      q: 'x y',
      owner: 'Ana',
      sort: '-failed',
      group: 'department',
      columns: 'owner,failed',
    }
    expect(queryOf(viewOf(query))).toEqual(query)
    expect(queryOf(viewOf({}))).toEqual({})
  })

  it('leaves out what an address says that it does not know', () => {
    const view = viewOf({ sort: '-nothing', group: 'failed', columns: 'none,name', other: 'x' })
    expect(view).toMatchObject({ sort: 'name', down: false, group: '', columns: USUAL, only: {} })
  })

  it('filters by each word and by a value of a column, also by what nobody said', () => {
    expect(ids({ q: 'ana not' })).toEqual([['', 'climate']])
    expect(ids({ owner: 'Ana' })).toEqual([['', 'climate', 'hazard']])
    expect(ids({ department: '' })).toEqual([['', 'climate', 'hazard']])
    expect(ids({ systems: 'Desk', q: 'hazard' })).toEqual([['', 'hazard']])
  })

  it('sorts numbers as numbers, and what is equal by name', () => {
    expect(ids({ sort: '-failed' })).toEqual([['', 'climate', 'hazard', 'pledge']])
    expect(ids({ sort: 'owner' })).toEqual([['', 'climate', 'hazard', 'pledge']])
  })

  it('puts a bridge into the group of each of its systems, and what nobody said last', () => {
    expect(ids({ group: 'systems' })).toEqual([
      ['Board', 'climate', 'hazard', 'pledge'],
      ['Desk', 'climate', 'hazard'],
    ])
    expect(ids({ group: 'department' }).map((group) => group[0])).toEqual(['Friends', ''])
  })

  it('is written as CSV in which no cell becomes a formula and no day is “today”', () => {
    const view = viewOf({ columns: 'owner,failed,since' })
    const cells = [row('a', { name: 'One, "two"', owner: '=1+1', failed: 3 })]
    expect(csvOf(view, cells)).toBe(
      'id,Bridge,Owner,Failed,Live since\r\na,"One, ""two""",\'=1+1,3,2026-11-24T10:00:00Z\r\n',
    )
  })
})
