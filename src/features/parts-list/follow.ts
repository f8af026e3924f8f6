import { followBoards } from '@/store/built-boards';
import { storageProblem } from '@/store/problems';
import { refuse } from '../shell/tell';

/** Let the drawer follow the boards that are built, and say where it cannot. */
export const followBuiltBoards = (): void =>
  followBoards((error) =>
    refuse(
      `The drawer was not changed: ${storageProblem(error)}. The board is not marked as built.`,
    ),
  );
