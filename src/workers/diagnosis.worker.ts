import { expose } from 'comlink';
import { makeDiagnosisService } from './diagnosisService';

expose(makeDiagnosisService());
