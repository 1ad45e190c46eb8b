import { createRouter, createWebHistory } from 'vue-router'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', redirect: '/watch' },
    {
      path: '/watch',
      name: 'watch',
      component: () => import('@/features/watch').then((m) => m.WatchPage),
      meta: { title: 'Watch' },
    },
    {
      path: '/incidents',
      name: 'incidents',
      component: () => import('@/features/incidents').then((m) => m.IncidentsPage),
      meta: { title: 'Incidents' },
    },
    {
      path: '/alarms',
      name: 'alarms',
      component: () => import('@/features/incidents').then((m) => m.AlarmsPage),
      meta: { title: 'Who is told of incidents' },
    },
    {
      path: '/incidents/:id',
      name: 'incident',
      component: () => import('@/features/incidents').then((m) => m.IncidentPage),
      props: true,
      meta: { title: 'Incident' },
    },
    {
      path: '/recalls',
      name: 'recalls',
      component: () => import('@/features/recall').then((m) => m.RecallsPage),
      meta: { title: 'Taken back' },
    },
    {
      path: '/recalls/new',
      name: 'new-recall',
      component: () => import('@/features/recall').then((m) => m.NewRecallPage),
      meta: { title: 'Take back' },
    },
    {
      path: '/recalls/:id',
      name: 'recall',
      component: () => import('@/features/recall').then((m) => m.RecallPage),
      props: true,
      meta: { title: 'Take back' },
    },
    {
      path: '/bridges',
      name: 'bridges',
      component: () => import('@/features/bridges').then((m) => m.BridgesPage),
      meta: { title: 'Bridges' },
    },
    {
      path: '/bridges/:id',
      name: 'bridge',
      component: () => import('@/features/bridges').then((m) => m.BridgePage),
      props: true,
      meta: { title: 'Bridge' },
    },
    {
      path: '/bridges/:id/full-check',
      name: 'full-check',
      component: () => import('@/features/fullcheck').then((m) => m.FullCheckPage),
      props: true,
      meta: { title: 'Full check' },
    },
    {
      path: '/bridges/:id/rehearsal',
      name: 'rehearsal',
      component: () => import('@/features/rehearsal').then((m) => m.RehearsalPage),
      props: true,
      meta: { title: 'Rehearsal' },
    },
    {
      path: '/bridges/:id/places',
      name: 'places',
      component: () => import('@/features/places').then((m) => m.PlacesPage),
      props: true,
      meta: { title: 'Places' },
    },
    {
      path: '/bridges/:id/copies',
      name: 'copies',
      component: () => import('@/features/copies').then((m) => m.CopiesPage),
      props: true,
      meta: { title: 'Copies' },
    },
    {
      path: '/bridges/:id/desk',
      name: 'desk',
      component: () => import('@/features/desk').then((m) => m.DeskPage),
      props: true,
      meta: { title: 'Desk' },
    },
    {
      path: '/where',
      name: 'where',
      component: () => import('@/features/where').then((m) => m.WherePage),
      meta: { title: 'Where is it?' },
    },
    {
      path: '/hangs-on',
      name: 'uses',
      component: () => import('@/features/uses').then((m) => m.UsesPage),
      meta: { title: 'What hangs on what' },
    },
    {
      path: '/tables',
      name: 'tables',
      component: () => import('@/features/tables').then((m) => m.TablesPage),
      meta: { title: 'Tables' },
    },
    {
      path: '/to-come',
      name: 'to-come',
      component: () => import('@/features/tocome').then((m) => m.ToComePage),
      meta: { title: 'What is to come' },
    },
    {
      path: '/tables/:id',
      name: 'table',
      component: () => import('@/features/tables').then((m) => m.TablePage),
      props: true,
      meta: { title: 'Table' },
    },
    {
      path: '/calendars/:id',
      name: 'calendar',
      component: () => import('@/features/tables').then((m) => m.CalendarPage),
      props: true,
      meta: { title: 'Calendar' },
    },
    {
      path: '/traces',
      name: 'traces',
      component: () => import('@/features/traces').then((m) => m.TracesPage),
      meta: { title: 'Traces' },
    },
    {
      path: '/traces/:id',
      name: 'trace',
      component: () => import('@/features/traces').then((m) => m.TracePage),
      props: true,
      meta: { title: 'Trace' },
    },
    {
      path: '/pairs',
      name: 'pairs',
      component: () => import('@/features/pairs').then((m) => m.PairsPage),
      meta: { title: 'Pairs' },
    },
    {
      path: '/systems',
      name: 'systems',
      component: () => import('@/features/systems').then((m) => m.SystemsPage),
      meta: { title: 'Systems' },
    },
    {
      path: '/systems/new',
      name: 'connect',
      component: () => import('@/features/systems').then((m) => m.ConnectPage),
      meta: { title: 'Connect a system' },
    },
    {
      path: '/systems/:id/document',
      name: 'system-document',
      component: () => import('@/features/systems').then((m) => m.ConnectPage),
      props: true,
      meta: { title: 'Its document' },
    },
    { path: '/:rest(.*)*', component: () => import('./MissingPage.vue'), meta: { title: '' } },
  ],
})

router.afterEach((to) => {
  const title = String(to.meta.title ?? '')
  document.title = title ? `${title} · Ysthmos` : 'Ysthmos'
})
