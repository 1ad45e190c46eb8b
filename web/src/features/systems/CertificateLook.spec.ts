import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { useSession } from '@/shared/composables/session'
import { serve } from '@/test/desk'
import CertificateLook from './CertificateLook.vue'
import { trusting } from './connect'

useSession().zone.value = 'Europe/Lisbon'

const DOCUMENT = 'system: jobs\naddress: https://jobs.example\ncollections:\n  all: {}\n'
const shown = {
  subject: 'CN=jobs.example',
  issuer: 'CN=Works authority',
  names: ['jobs.example'],
  from: '2026-01-01T00:00:00Z',
  until: '2027-01-01T00:00:00Z',
  digest: 'AB:CD',
  pem: '-----BEGIN CERTIFICATE-----\nMIIB\n-----END CERTIFICATE-----\n',
  signsOthers: false,
}

describe('a private certificate', () => {
  it('is shown with its digest before it can be trusted', async () => {
    const authority = { ...shown, subject: 'CN=Works authority', signsOthers: true, digest: 'EF' }
    serve({
      'POST certificates': {
        trusted: false,
        problem: 'nobody vouches for it',
        certificates: [shown, authority],
      },
    })
    const view = mount(CertificateLook, { props: { document: DOCUMENT } })
    expect(view.text()).not.toContain('Trust exactly')
    await view.get('button').trigger('click')
    await flushPromises()
    expect(view.text()).toContain('AB:CD')
    expect(view.text()).toContain('Nobody vouches for it.')
    const [exact, signed] = view.findAll('.ways button')
    await exact!.trigger('click')
    expect(view.emitted('trust')!.at(-1)).toEqual([
      'system: jobs\naddress: https://jobs.example\n' +
        'trust: { certificate: "AB:CD" }\ncollections:\n  all: {}\n',
    ])
    expect(signed!.text()).toBe('Trust what this one signs')
  })

  it('takes the place of what the document trusted before, or goes', () => {
    const block = 'trust:\n  authority: |\n    -----BEGIN\n    MII'
    const once = trusting(DOCUMENT, block)
    expect(once).toContain('    MII\ncollections:')
    expect(trusting(once, 'trust: { certificate: x }')).toBe(
      trusting(DOCUMENT, 'trust: { certificate: x }'),
    )
    expect(trusting(once, '')).toBe(DOCUMENT)
  })
})
