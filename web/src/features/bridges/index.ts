export { default as BridgesPage } from './BridgesPage.vue'
export { default as BridgePage } from './BridgePage.vue'
export { readBridges, readRetired } from './api'
