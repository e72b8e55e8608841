/** The stations of the job card, in working order. */
export const STATIONS = [
  'artwork',
  'films',
  'surface',
  'build',
  'prepare',
  'sheets',
  'cut',
  'assemble',
  'record',
] as const;
export type StationName = (typeof STATIONS)[number];

/** What each is called on its tab. */
export const STATION_NAMES: Readonly<Record<StationName, string>> = {
  artwork: 'Artwork',
  films: 'Films',
  surface: 'Surface',
  build: 'Build',
  prepare: 'Prepare',
  sheets: 'Sheets',
  cut: 'Cut',
  assemble: 'Assemble',
  record: 'Record',
};
