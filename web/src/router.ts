import { createRouter, createWebHistory } from 'vue-router'

import { findPerson, homeOf, person } from './session'

declare module 'vue-router' {
  interface RouteMeta {
    title: string
    /** Who may be here; everybody signed in where not given. */
    role?: 'instructor' | 'student'
  }
}

export const router = createRouter({
  history: createWebHistory(),
  scrollBehavior: (_to, _from, saved) => saved ?? { top: 0 },
  routes: [
    {
      path: '/',
      component: () => import('./views/door/Door.vue'),
      meta: { title: 'Who are you?' },
    },
    {
      path: '/drills',
      component: () => import('./views/drills/DrillList.vue'),
      meta: { title: 'Drills', role: 'instructor' },
    },
    {
      path: '/drills/:id',
      component: () => import('./views/bench/BenchPage.vue'),
      meta: { title: 'Bench', role: 'instructor' },
    },
    {
      path: '/blocks/:id',
      component: () => import('./views/blocks/BlockPage.vue'),
      meta: { title: 'Block', role: 'instructor' },
    },
    {
      path: '/print',
      component: () => import('./views/print/Print.vue'),
      meta: { title: 'Print', role: 'instructor' },
    },
    {
      path: '/students',
      component: () => import('./views/students/Students.vue'),
      meta: { title: 'Students', role: 'instructor' },
    },
    {
      path: '/practice',
      component: () => import('./views/practice/Practice.vue'),
      meta: { title: 'Practice', role: 'student' },
    },
    {
      path: '/stand/:id',
      component: () => import('./views/stand/Stand.vue'),
      meta: { title: 'Stand', role: 'student' },
    },
    {
      path: '/progress/:id',
      component: () => import('./views/progress/Progress.vue'),
      meta: { title: 'Progress' },
    },
    {
      path: '/takes/:id',
      component: () => import('./views/take/TakePage.vue'),
      meta: { title: 'Take' },
    },
    { path: '/:rest(.*)', redirect: '/' },
  ],
})

router.beforeEach(async (to) => {
  if (to.path === '/') return true
  const who = person.value ?? (await findPerson().catch(() => null))
  if (!who) return '/'
  if (to.meta.role && to.meta.role !== who.role) return homeOf(who)
  return true
})

router.afterEach((to) => {
  document.title = `${to.meta.title} – Manudrill`
})
