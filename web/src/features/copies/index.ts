export { isCopy } from './api'
export { default as BridgeCopies } from './BridgeCopies.vue'
export { default as CopiesPage } from './CopiesPage.vue'
