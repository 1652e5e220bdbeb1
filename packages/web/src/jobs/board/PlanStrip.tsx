import type { House, Job, Plan } from '@tersum/document';
import { planOf, priceOf } from '@tersum/document';
import type { ApexOptions } from 'apexcharts';
import { format, parseISO } from 'date-fns';
import { Settings2 } from 'lucide-react';
import { Suspense, useMemo } from 'react';
import styled from 'styled-components';
import { Chart } from '../../look/Chart.js';
import { Figure, Push } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import { timeOf } from '../../look/time.js';

interface StripProps {
  readonly jobs: readonly Job[];
  readonly house: House;
  onSettings(): void;
}

/** What the plan says today. */
export function todaysPlan(jobs: readonly Job[], house: House): Plan {
  return planOf(jobs, house, format(new Date(), 'yyyy-MM-dd'));
}

/** The load of the next days against the hours there are, and what is spent and left in all. */
export function PlanStrip({ jobs, house, onSettings }: StripProps) {
  const plan = useMemo(() => todaysPlan(jobs, house), [jobs, house]);
  const open = jobs.filter((job) => !job.archived && job.state !== 'delivered');
  const spent = open.reduce((sum, job) => sum + job.work.spent, 0);
  const left = open.reduce((sum, job) => sum + job.work.remaining, 0);
  const price = priceOf(spent + left, house);
  const late = plan.jobs.filter((job) => job.late).length;
  const days = plan.days.slice(0, 10);
  const options = useMemo(
    (): ApexOptions => ({
      chart: {
        toolbar: { show: false },
        zoom: { enabled: false },
        animations: { enabled: false },
        stacked: true,
        fontFamily: look.figures,
      },
      colors: [look.done, look.hairline],
      plotOptions: { bar: { columnWidth: '62%' } },
      dataLabels: { enabled: false },
      legend: { show: false },
      grid: { show: false, padding: { left: 0, right: 0, top: -24, bottom: -8 } },
      states: { hover: { filter: { type: 'none' } } },
      xaxis: {
        categories: days.map(({ day }) => format(parseISO(day), 'EEEEEE d')),
        axisBorder: { show: false },
        axisTicks: { show: false },
        labels: { style: { fontSize: '11px', colors: look.inkSoft } },
      },
      yaxis: { show: false, min: 0, max: house.hours },
      tooltip: { y: { formatter: (hours: number) => timeOf(hours * 3600) } },
    }),
    [days, house.hours],
  );
  const series = [
    { name: 'Planned', data: days.map(({ taken }) => taken / 3600) },
    { name: 'Free', data: days.map(({ room, taken }) => (room - taken) / 3600) },
  ];
  return (
    <Strip aria-label="Plan">
      <dl>
        <dt>Left to do</dt>
        <dd>
          <Figure>{left > 0 ? timeOf(left) : 'nothing'}</Figure>
        </dd>
        <dt>Spent on open jobs</dt>
        <dd>
          <Figure>{spent > 0 ? timeOf(spent) : '0 min'}</Figure>
        </dd>
        {price !== null && (
          <>
            <dt>Worth</dt>
            <dd>
              <Figure>
                {price} {house.currency}
              </Figure>
            </dd>
          </>
        )}
      </dl>
      <Days aria-label={`Load of the next ${days.length} days, ${house.hours} h a day`} role="img">
        <Suspense fallback={null}>
          <Chart type="bar" height={84} width="100%" series={series} options={options} />
        </Suspense>
      </Days>
      <div>
        <p data-late={late > 0}>
          {late > 0
            ? `${late} ${late === 1 ? 'job does' : 'jobs do'} not fit before the due date.`
            : left > 0
              ? 'Everything fits before it is due.'
              : 'Survey pictures, and their work is planned here.'}
        </p>
        <Push onPress={onSettings}>
          <Settings2 size={14} aria-hidden /> Hours and rate
        </Push>
      </div>
    </Strip>
  );
}

const Strip = styled.section`
  display: grid;
  grid-template-columns: 210px minmax(0, 1fr) 220px;
  gap: 24px;
  align-items: center;
  padding: 10px 20px;
  margin-bottom: 16px;
  border: 1px solid ${look.hairline};
  border-radius: ${look.corner};
  dl {
    margin: 0;
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 3px 10px;
  }
  dt {
    color: ${look.inkSoft};
  }
  dd {
    margin: 0;
    text-align: right;
  }
  p {
    margin-bottom: 8px;
    color: ${look.inkSoft};
    font-size: 12px;
  }
  p[data-late='true'] {
    color: ${look.todo};
    font-weight: 600;
  }
`;

const Days = styled.div`
  height: 84px;
  overflow: hidden;
`;
