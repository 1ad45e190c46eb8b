export { default as WatchPage } from './WatchPage.vue'
