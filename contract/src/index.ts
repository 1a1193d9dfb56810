/** Every request and response between the browser and the server. */
export * from './api.js';
export * from './assets.js';
export * from './convert.js';
export * from './fills.js';
export * from './folders.js';
export * from './house.js';
export * from './library.js';
export * from './people.js';
export * from './problem.js';
export * from './proofs.js';
export * from './tables.js';
export * from './texts.js';
export * from './versions.js';
export * from './mailroom.js';
export * from './sending.js';
