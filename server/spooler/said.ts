/** What the maker is told of a cut under way. */
export const SAID = {
  waiting: 'The cutter does not answer. Check its cable and its power. The cut goes on by itself when it is back.',
  outOfFilm:
    'The cutter says that the film is at its end. If the same piece still lies as it did, clear the fault at the cutter and the cut goes on. If the piece really ends here, cancel this sheet: what is whole on it is kept, and the rest is cut on a new piece.',
  jammed: 'The film is jammed. If it can be freed and still lies as it did, clear the fault at the cutter and the cut goes on. If it has moved, cancel this sheet: what is whole on it is kept.',
  interrupted: 'The server was restarted during this cut. If the piece still lies in the cutter as it did, go on. If it has been moved, cancel this sheet.',
  clearing: 'The cutter still held lines of an earlier cut. They are dropped before this sheet begins.',
  cancelled: 'You cancelled it.',
  cancelling: 'The cutter is being told to drop what it holds.',
  cancellingUnreached: 'The cutter cannot be reached to drop what it still holds, and may cut on with it. Leave the piece in until it answers, or switch it off and on.',
  placeLost: 'The cutter was switched off and no longer knows where the piece lies.',
  countWrong: 'The cutter’s count does not fit this sheet: something else was sent to it meanwhile.',
  recordUnwritten: 'The record cannot be written, so nothing more is sent to the cutter. Is the disk full? It is tried again by itself.',
} as const;
