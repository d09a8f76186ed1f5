import { expose } from 'comlink';
import { makeDiagnosisService } from './diagnosisService';

/** The likeliest next test is worked out while the person walks to it. */
const AHEAD = 1;

expose(makeDiagnosisService(undefined, AHEAD));
