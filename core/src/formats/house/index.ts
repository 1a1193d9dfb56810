/** `house.yaml`, read and written. */
export { readHouse, type ReadHouse } from './read.js';
export { writeHouse } from './write.js';
