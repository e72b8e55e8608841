import { Fragment } from 'react';
import { Link } from 'react-router';

/** A reference to a page of the documentation, as reasons hold it. */
const PAGE = /docs\/([\w-]+)\.md/;

/** A reason, with the page of the documentation that it names as a link. */
export function Reason({ text }: { readonly text: string }) {
  return text.split(/(docs\/[\w-]+\.md)/).map((piece, i) => {
    const name = PAGE.exec(piece)?.[1];
    return name ? (
      <Link key={i} to={`/docs/${name}`} target="_blank">
        more about this<span className="unseen"> ({name.replaceAll('-', ' ')}, in a new tab)</span>
      </Link>
    ) : (
      <Fragment key={i}>{piece}</Fragment>
    );
  });
}
