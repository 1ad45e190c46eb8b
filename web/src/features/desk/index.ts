export { default as DeskPage } from './DeskPage.vue'
export { default as NewBridge } from './NewBridge.vue'
export { readDrafts } from './api'
