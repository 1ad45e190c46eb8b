export { default as PlacesPage } from './PlacesPage.vue'
export { default as PlacesEditor } from './PlacesEditor.vue'
