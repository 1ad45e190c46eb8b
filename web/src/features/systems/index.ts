export { default as SystemsPage } from './SystemsPage.vue'
export { readPolls, readSystems } from './api'
export { troubles, type Trouble } from './troubles'
export { default as ConnectPage } from './ConnectPage.vue'
