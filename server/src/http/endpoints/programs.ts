import { PROGRAMS } from '@dial-gauge/contract';
import { serve, type Resource } from '../endpoint.js';
import { ProgramRow } from '../../records/programmes/entities.js';
import { giveProgram } from '../../use-cases/treating/programmes.js';
import { programsView } from '../../read-models/programmes/programmes.js';

const thread = true;

/** Drills that are given after a visit. */
export const programs: Resource = {
  entities: [ProgramRow],
  routes: [
    serve(PROGRAMS.programs, (work, { params }) => programsView(work, params.id), { thread }),
    serve(
      PROGRAMS.giveProgram,
      async (work, { params, body }) => {
        await giveProgram(work, params.id, body);
        return (after) => programsView(after, params.id);
      },
      { thread },
    ),
  ],
};
