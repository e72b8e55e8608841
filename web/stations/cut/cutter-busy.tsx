import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import styled from 'styled-components';
import { ask } from '../../api/client.js';
import { colour, radius, space, type } from '../../tokens.js';

export interface Busy {
  readonly runId: string;
  readonly jobId: string;
  readonly jobTitle: string;
  readonly filmName: string;
}

/** What the cutter is at; null while it is free, or not known. */
export function useCutterBusy(): Busy | null {
  return (
    useQuery({ queryKey: ['cutter'], queryFn: () => ask<{ busy: Busy | null }>('/api/cutter'), refetchInterval: 3000 })
      .data?.busy ?? null
  );
}

/** The cutter is at another job: which, and the way there. */
export function CutterBusy({ busy }: { readonly busy: Busy }) {
  return (
    <Card>
      The cutter is busy with {busy.filmName} of <Link to={`/jobs/${busy.jobId}/cut`}>{busy.jobTitle}</Link>. Other
      sheets can be cut when that is finished or cancelled.
    </Card>
  );
}

const Card = styled.p`
  padding: ${space.m};
  background: ${colour.warnWash};
  border-left: 4px solid ${colour.warn};
  border-radius: ${radius.m};
  font-size: ${type.small};
  a {
    color: ${colour.accent};
  }
`;
