/** What the maker is told of a cut under way. */
export const SAID = {
  waiting: 'The cutter does not answer. Check its cable and its power. The cut goes on by itself when it is back.',
  outOfFilm:
    'The cutter reports the end of the film. If the same piece is still in place, clear the fault at the cutter, and the cut goes on. If the piece really ends here, cancel this sheet. What is whole on it is kept, and the rest is cut on a new piece.',
  jammed:
    'The film is jammed. If you can free it without moving the piece, clear the fault at the cutter, and the cut goes on. If the piece has moved, cancel this sheet. What is whole on it is kept.',
  interrupted:
    'The server was restarted during this cut. If the piece is still in place in the cutter, resume. If it was moved, cancel this sheet.',
  clearing: 'The cutter still has lines of an earlier cut. They are dropped before this sheet begins.',
  cancelled: 'You cancelled it.',
  cancelling: 'The cutter is told to drop what it has not cut yet.',
  cancellingUnreached:
    'The cutter cannot be reached. It may still cut what it has received. Leave the piece in until the cutter answers, or switch it off and on.',
  placeLost: 'The cutter was switched off and does not know any more where the piece lies.',
  dropped:
    'The cutter has dropped what it held of this sheet, in the middle of a line, so it cannot go on there. What is whole on the piece is kept. Cut the rest on a new piece.',
  countWrong: 'The cutter’s count does not fit this sheet. Something else was sent to the cutter in the meantime.',
  recordUnwritten:
    'The record cannot be written, so nothing more is sent to the cutter. Is the disk full? The app keeps trying.',
  cancelUnrecorded:
    'The cutter was told to drop the cut, and does not go on. That cannot be recorded: the disk is full or cannot be written. Free some space on it. The app keeps trying, and nothing else can be cut until then.',
  busy: 'Another cut is not finished. Finish or cancel it first.',
} as const;
