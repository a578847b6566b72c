import { expose } from 'comlink';
import { outlook } from '../../core/review';

const worker = { outlook };
export type PredictWorker = typeof worker;
expose(worker);
