import type { PlannedTask, Standing, Task } from './task';

/**
 * Tasks in the order in which they are best done: none before what it waits for; what can be begun
 * before what cannot; of several, the one first behind which most hours wait (a list schedule by the
 * longest chain: T. C. Hu, “Parallel sequencing and assembly line problems”, Operations Research 9,
 * 1961, 841–848). Parts are ordered early, since boards wait for them.
 *
 * Ordering parts puts what waits for them among what waits: parts take days to come.
 */
export function inOrder(tasks: readonly Task[]): PlannedTask[] {
  const byId = new Map(tasks.map((t) => [t.id, t]));
  const place = new Map(tasks.map((t, i) => [t.id, i]));
  const before = (task: Task): Task[] =>
    task.waits.flatMap((w) => (w.is === 'task' ? (byId.get(w.id) ?? []) : []));
  const chain = chains(tasks, before);
  const standing = standings(tasks, before);
  const rank: Readonly<Record<Standing, number>> = { now: 0, after: 1, waiting: 2 };
  const sooner = (a: Task, b: Task) =>
    rank[standing.get(a.id)!] - rank[standing.get(b.id)!] ||
    chain.get(b.id)! - chain.get(a.id)! ||
    place.get(a.id)! - place.get(b.id)!;

  const left = new Set(tasks);
  const done: PlannedTask[] = [];
  while (left.size > 0) {
    const free = [...left].filter((t) => !before(t).some((b) => left.has(b)));
    // Tasks that wait for each other in a circle are shown all the same, as those that wait.
    const [next] = (free.length > 0 ? free : [...left]).sort(sooner);
    left.delete(next);
    done.push({ ...next, standing: standing.get(next.id)! });
  }
  return done;
}

/** Whether one task waits for another, over others or by itself. */
export function waitsFor(tasks: readonly Task[], id: string, other: string): boolean {
  const byId = new Map(tasks.map((t) => [t.id, t]));
  const seen = new Set<string>();
  const reaches = (from: string): boolean => {
    if (from === other) return true;
    if (seen.has(from)) return false;
    seen.add(from);
    return (byId.get(from)?.waits ?? []).some((w) => w.is === 'task' && reaches(w.id));
  };
  return reaches(id);
}

/** Hours from the beginning of each task to the end of the longest chain that it begins. */
function chains(tasks: readonly Task[], before: (t: Task) => Task[]): Map<string, number> {
  const behind = new Map<string, Task[]>(tasks.map((t) => [t.id, []]));
  for (const task of tasks) for (const b of before(task)) behind.get(b.id)!.push(task);
  const found = new Map<string, number>();
  const of = (task: Task): number => {
    const known = found.get(task.id);
    if (known !== undefined) return known;
    found.set(task.id, task.hours); // a circle ends here
    const hours = task.hours + Math.max(0, ...behind.get(task.id)!.map(of));
    found.set(task.id, hours);
    return hours;
  };
  tasks.forEach(of);
  return found;
}

function standings(tasks: readonly Task[], before: (t: Task) => Task[]): Map<string, Standing> {
  const found = new Map<string, Standing>();
  const of = (task: Task): Standing => {
    const known = found.get(task.id);
    if (known) return known;
    found.set(task.id, 'waiting'); // who waits for itself waits
    const ahead = before(task);
    const waits =
      task.waits.some((w) => w.is === 'world') ||
      ahead.some((b) => b.kind === 'order' || of(b) === 'waiting');
    const standing = waits ? 'waiting' : ahead.length > 0 ? 'after' : 'now';
    found.set(task.id, standing);
    return standing;
  };
  tasks.forEach(of);
  return found;
}
