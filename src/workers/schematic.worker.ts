import { expose } from 'comlink';
import { layoutSchematic } from './schematicLayout';

expose({ layout: layoutSchematic });
