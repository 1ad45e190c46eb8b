import { vi } from 'vitest'

// The files of a worker share one page, which is quick; each still starts with modules of its own, mocked as it says.
vi.resetModules()
document.body.innerHTML = ''
