import { demoBoards } from './boards';
import { demoJobs } from './jobs';
import { demoShop } from './shop';

/** The made-up shop whole: what a new installation begins with. */
export const demo = { shop: demoShop, boards: demoBoards, jobs: demoJobs, demo: true };
