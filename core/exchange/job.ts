import type { BuildDocument } from '../document';
import type { Format } from './format';

/** The job file. It is read by the contract, which checks it (`readJobFile`). */
export const jobFormat: Format<BuildDocument> = {
  id: 'job',
  name: 'Job',
  extension: 'junta.json',
  media: 'application/json',
  says: 'A job whole, with the shop values it was planned with; described by a JSON Schema.',
  reads: true,
  writes: (build) => `${JSON.stringify(build, null, 2)}\n`,
};

/** What was changed of the kit or a board and could not be stored: plain JSON, so that nothing is lost. */
export const draftFormat: Format<unknown> = {
  id: 'unsent',
  name: 'Unsent change',
  extension: 'json',
  media: 'application/json',
  says: 'A change of the kit or of a board that the server refused, as it was made.',
  reads: false,
  writes: (content) => `${JSON.stringify(content, null, 2)}\n`,
};
