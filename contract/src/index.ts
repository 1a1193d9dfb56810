/** Every request and response between the browser and the server. */
export * from './assets.js';
export * from './convert.js';
export * from './fills.js';
export * from './house.js';
export * from './people.js';
export * from './problem.js';
export * from './proofs.js';
export * from './tables.js';
export * from './texts.js';
