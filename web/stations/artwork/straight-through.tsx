import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { useJobContext } from '../../job/job-context.js';
import { space } from '../../tokens.js';
import { Button } from '../../ui/button.js';
import { Small } from '../../ui/plain-fields.js';

/** From the artwork to the cutting list in one press, where nothing stops the job. */
export function StraightThrough() {
  const { job, plan, working, handle } = useJobContext();
  const navigate = useNavigate();
  const isLeft = plan?.toCut?.some(({ copies, taken }) => taken < copies) ?? false;
  // A film that is not in stock stops it only when it is laid out, and stops it all the same.
  if (!plan || !isLeft || plan.findings.some(({ severity }) => severity === 'blocker')) return null;
  return (
    <Box>
      <Button
        isDisabled={working || handle.saving !== 'saved'}
        onPress={() => void navigate(`/cutting-list/job/${job.id}`)}
      >
        Straight to the cutting list
      </Button>
      <Small>Nothing stops this job. What is decided for it is then shown on one page.</Small>
    </Box>
  );
}

const Box = styled.div`
  display: grid;
  gap: ${space.s};
  justify-items: start;
`;
