/** 'before' and 'after' are what lies between rectifier and reservoir, and between reservoir and load. */
export type StationId = 'mains' | 'winding' | 'rectifier' | 'before' | 'reservoir' | 'after' | 'regulator' | 'load';
