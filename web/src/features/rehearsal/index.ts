export { default as RehearsalPage } from './RehearsalPage.vue'
export { default as LastRehearsal } from './LastRehearsal.vue'
