import { mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { defineComponent } from 'vue'
import { openRow, walkRows } from './rows'

function table(followed: (row: string) => void) {
  return mount(
    defineComponent({
      setup: () => ({ openRow, walkRows, followed }),
      template: `<table><tbody @click="openRow" @keydown="walkRows">
        <tr v-for="row in ['one', 'two', 'three']" :key="row">
          <td class="text">{{ row }}</td>
          <td><a href="#" @click.prevent="followed(row)">{{ row }}</a></td>
          <td><button>act</button></td>
        </tr></tbody></table>`,
    }),
    { attachTo: document.body },
  )
}

describe('rows that lead somewhere', () => {
  it('are followed by a click anywhere in them, once, and not by one on a control', async () => {
    const followed = vi.fn()
    const view = table(followed)
    await view.findAll('.text')[1]!.trigger('click')
    expect(followed.mock.calls).toEqual([['two']])
    await view.findAll('button')[1]!.trigger('click')
    await view.findAll('a')[0]!.trigger('click')
    expect(followed.mock.calls).toEqual([['two'], ['one']])
    view.unmount()
  })

  it('are walked by the arrow keys, and stop at both ends', async () => {
    const view = table(() => {})
    const links = view.findAll('a')
    links[0]!.element.focus()
    const press = (key: string) =>
      (document.activeElement as HTMLElement).dispatchEvent(
        new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }),
      )
    press('ArrowDown')
    expect(document.activeElement).toBe(links[1]!.element)
    press('End')
    press('ArrowDown')
    expect(document.activeElement).toBe(links[2]!.element)
    press('Home')
    press('ArrowUp')
    expect(document.activeElement).toBe(links[0]!.element)
    view.unmount()
  })

  it('are walked from group to group, past the headings of both', () => {
    const view = mount(
      defineComponent({
        setup: () => ({ walkRows }),
        template: `<table><tbody v-for="group in ['a', 'b']" :key="group" @keydown="walkRows">
          <tr><th>{{ group }}</th></tr><tr><td><a href="#">{{ group }}</a></td></tr>
          </tbody></table>`,
      }),
      { attachTo: document.body },
    )
    const links = view.findAll('a')
    links[0]!.element.focus()
    for (const [key, at] of [
      ['ArrowDown', 1],
      ['ArrowUp', 0],
      ['Home', 0],
      ['End', 1],
    ] as const) {
      document.activeElement!.dispatchEvent(
        new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }),
      )
      expect(document.activeElement).toBe(links[at]!.element)
    }
    view.unmount()
  })
})
