import { createRouter, createWebHistory } from 'vue-router'
import ShelfView from './shelf/ShelfView.vue'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'shelf', component: ShelfView },
    {
      path: '/part/:id',
      component: () => import('./model/PartView.vue'),
      props: true,
      children: [
        { path: '', name: 'model', component: () => import('./model/ModelView.vue') },
        {
          path: 'inspect',
          name: 'inspect',
          component: () => import('./inspect/InspectView.vue'),
        },
        { path: 'sheet', name: 'sheet', component: () => import('./sheet/SheetView.vue') },
        {
          path: 'dispatch',
          name: 'dispatch',
          component: () => import('./dispatch/DispatchView.vue'),
        },
      ],
    },
    { path: '/:rest(.*)', redirect: '/' },
  ],
})
