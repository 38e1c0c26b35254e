import type { EpisodeView } from '@dial-gauge/contract';
import type { Episode } from './entities.js';

export function episodeView(episode: Episode): EpisodeView {
  const { id, complaint, involvedSide, complaintAt, openedOn, procedureId, procedure, procedureOn, dominantSide, wanted, revision } =
    episode;
  return {
    id,
    complaint,
    involvedSide,
    complaintAt,
    openedOn,
    procedureId,
    procedure,
    procedureOn,
    dominantSide,
    wanted,
    precautions: episode.precautions ?? [],
    dueOn: episode.dueOn,
    revision,
  };
}
