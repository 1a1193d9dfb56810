/** What is remembered in this browser for the next visit: sizes and choices of no weight. Nothing of a text is kept here. */
import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';

/** The one place that reads and writes them; a value that cannot be read gives way to its default. */
export const usePreferences = defineStore('preferences', () => ({
  /** The tray's share of the pane in Write, in hundredths. */
  trayShare: useLocalStorage('vocabula.tray-height', 40),
  /** Whether the tray in Write takes the whole pane. */
  trayWhole: useLocalStorage('vocabula.tray-whole', false),
  /** The sample set one last worked with, by its id. */
  sampleSet: useLocalStorage('vocabula.sample-set', ''),
}));
