import { createRouter, createWebHistory } from 'vue-router'

import { teaches } from './api/people'
import { findPerson, person } from './session'

declare module 'vue-router' {
  interface RouteMeta {
    title: string
    /** Who may be here; everybody signed in where not given. */
    role?: 'instructor' | 'student'
    /** Nobody need be signed in. */
    open?: boolean
    /** Without the bar and the footer of the house. */
    bare?: boolean
  }
}

export const router = createRouter({
  history: createWebHistory(),
  scrollBehavior: (_to, _from, saved) => saved ?? { top: 0 },
  routes: [
    {
      path: '/',
      component: () => import('./views/door/Door.vue'),
      meta: { title: 'Come in', open: true, bare: true },
    },
    {
      path: '/begin',
      component: () => import('./views/door/Begin.vue'),
      meta: { title: 'Begin a studio', open: true, bare: true },
    },
    {
      path: '/join',
      component: () => import('./views/door/Join.vue'),
      meta: { title: 'Join', open: true, bare: true },
    },
    {
      path: '/forgotten',
      component: () => import('./views/door/Forgotten.vue'),
      meta: { title: 'Another password', open: true, bare: true },
    },
    {
      path: '/reset',
      component: () => import('./views/door/Reset.vue'),
      meta: { title: 'Another password', open: true, bare: true },
    },
    {
      path: '/privacy',
      component: () => import('./views/door/Privacy.vue'),
      meta: { title: 'What is kept', open: true },
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
      path: '/drills/:id/everybody',
      component: () => import('./views/everybody/EverybodyPage.vue'),
      meta: { title: 'With everybody', role: 'instructor' },
    },
    {
      path: '/blocks/:id',
      component: () => import('./views/blocks/BlockPage.vue'),
      meta: { title: 'Block', role: 'instructor' },
    },
    {
      path: '/print',
      component: () => import('./views/print/Print.vue'),
      meta: { title: 'Print' },
    },
    {
      path: '/students',
      component: () => import('./views/students/Students.vue'),
      meta: { title: 'Students', role: 'instructor' },
    },
    {
      path: '/students/:id',
      component: () => import('./views/students/StudentPage.vue'),
      meta: { title: 'Student', role: 'instructor' },
      children: [
        {
          path: '',
          component: () => import('./views/overview/OverviewPanel.vue'),
          props: (to) => ({ studentId: String(to.params.id) }),
        },
        { path: 'lesson', component: () => import('./views/lesson/StudentLesson.vue') },
        { path: 'plan', component: () => import('./views/plans/StudentPlan.vue') },
        { path: 'practice', component: () => import('./views/students/StudentPractice.vue') },
        { path: 'takes', component: () => import('./views/students/StudentTakes.vue') },
        { path: 'about', component: () => import('./views/students/StudentAbout.vue') },
      ],
    },
    {
      path: '/report/:id',
      component: () => import('./views/report/ReportPage.vue'),
      meta: { title: 'Report' },
    },
    {
      path: '/reach/:id',
      component: () => import('./views/reach/ReachPage.vue'),
      meta: { title: 'Reach of the hand' },
    },
    {
      path: '/review',
      component: () => import('./views/review/ReviewPage.vue'),
      meta: { title: 'Review', role: 'instructor' },
    },
    {
      path: '/cards',
      component: () => import('./views/students/Cards.vue'),
      meta: { title: 'Cards', role: 'instructor' },
    },
    {
      path: '/studio',
      component: () => import('./views/studio/StudioPage.vue'),
      meta: { title: 'Studio', role: 'instructor' },
    },
    {
      path: '/metronome',
      component: () => import('./views/metronome/MetronomePage.vue'),
      meta: { title: 'Metronome' },
    },
    {
      path: '/me',
      component: () => import('./views/account/Settings.vue'),
      meta: { title: 'Settings' },
    },
    {
      path: '/practice',
      component: () => import('./views/practice/Practice.vue'),
      meta: { title: 'Practice', role: 'student' },
    },
    {
      path: '/mine',
      component: () => import('./views/overview/MinePage.vue'),
      meta: { title: 'My progress', role: 'student' },
    },
    {
      path: '/delay',
      component: () => import('./views/stand/DelayPage.vue'),
      meta: { title: 'Delay of this device' },
    },
    {
      path: '/stand/:id/tempo',
      component: () => import('./views/stand/FindTempo.vue'),
      meta: { title: 'Find my tempo', role: 'student' },
    },
    {
      path: '/stand/:id',
      component: () => import('./views/stand/Stand.vue'),
      meta: { title: 'Stand' },
    },
    {
      path: '/routines/:id',
      component: () => import('./views/routine/RoutineStand.vue'),
      meta: { title: 'Practice', role: 'student', bare: true },
    },
    {
      path: '/students/:student/routines/:id',
      component: () => import('./views/plan/RoutinePage.vue'),
      meta: { title: 'Routine', role: 'instructor' },
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
    {
      path: '/:rest(.*)',
      name: 'nowhere',
      component: () => import('./views/door/Nowhere.vue'),
      meta: { title: 'Nothing here', open: true },
    },
  ],
})

router.beforeEach(async (to) => {
  const who = person.value !== undefined ? person.value : await findPerson().catch(() => null)
  if (to.meta.open) return true
  if (!who) return { path: '/', query: { to: to.fullPath } }
  if (to.meta.role && (to.meta.role === 'instructor') !== teaches(who))
    return { name: 'nowhere', params: { rest: to.path.slice(1) }, query: { for: to.meta.role } }
  return true
})

router.afterEach((to) => {
  document.title = `${to.meta.title} – Manudrill`
})
