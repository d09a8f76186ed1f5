import { expose } from 'comlink';
import { readLogFile } from './readLogFile';

expose({ read: readLogFile });
