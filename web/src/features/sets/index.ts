export { default as WhatMoves } from './WhatMoves.vue'
