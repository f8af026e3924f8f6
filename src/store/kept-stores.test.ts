/** @jest-environment jsdom */
import 'fake-indexeddb/auto';
import '@/testing/dom';
import type { Plan } from '@/core/plan/plan';
import type * as Lessons from './lessons';
import type * as PlanStore from './plan';
import type * as Practice from './practice';

/* Small stores read what was kept while their modules are still being made: nothing may be missing then. */

/** A module as a page that is loaded anew finds it, with something kept from before. */
function loadedAnew<T>(key: string, state: object, load: () => T): T {
  localStorage.setItem(key, JSON.stringify({ state, version: 1 }));
  let found!: T;
  jest.isolateModules(() => {
    found = load();
  });
  return found;
}

test('what was kept is there when the page is loaded anew', () => {
  const lessons = loadedAnew('jaunty-reed-lessons', { sheets: { 'rc-edge': 'x' } }, () =>
    jest.requireActual<typeof Lessons>('./lessons'),
  );
  expect(lessons.useLessons.getState().sheets).toEqual({ 'rc-edge': 'x' });

  const practice = loadedAnew('jaunty-reed-practice', { deal: 7, records: {} }, () =>
    jest.requireActual<typeof Practice>('./practice'),
  );
  expect(practice.usePractice.getState().deal).toBe(7);

  const plan = loadedAnew('jaunty-reed-plan', { hours: { order: 2 } } satisfies Partial<Plan>, () =>
    jest.requireActual<typeof PlanStore>('./plan'),
  );
  expect(plan.usePlan.getState().hours).toEqual({ order: 2 });
});
