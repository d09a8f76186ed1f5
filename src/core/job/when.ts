export { CIRCUMSTANCES as WHEN } from '../circuit/circumstances';
