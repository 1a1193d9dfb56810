/** Workers for code that is in a worker thread already: tasks are done where they are asked for. */
import { Workers } from './pool.js';
import { TASKS, type Task, type TaskInput, type TaskResult } from './tasks.js';

export class InlineWorkers extends Workers {
  override async run<K extends Task>(task: K, input: TaskInput<K>): Promise<TaskResult<K>> {
    const work = (await TASKS[task]()) as (given: TaskInput<K>) => Promise<TaskResult<K>>;
    return work(input);
  }
}
