import type { Row } from '@/features/register/api'

/** A row of the register, for specs; each can be changed in part. */
export const registerRow = (id: string, part: Partial<Row> = {}): Row => ({
  id,
  name: `Bridge ${id}`,
  purpose: '',
  owner: '',
  standIn: '',
  department: '',
  judged: null,
  measured: 'SOUND',
  because: '',
  condition: 'LIVE',
  source: 'Desk',
  target: 'Board',
  systems: ['Board', 'Desk'],
  came: 0,
  failed: 0,
  waiting: 0,
  lastEvent: null,
  since: '2026-11-24T10:00:00Z',
  version: 1,
  changedBy: 'setup',
  revision: 0,
  ...part,
})
