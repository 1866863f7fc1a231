// Writes the demo's logbooks anew: demo_visits. Its readings are computed from the demo's own
// loops, with what goes wrong in them over three years: cheese room, a slow leak; parlour wash, a
// coil that scales; calf milk, a probe that drifts. The photos are drawn here.
#include "app/shell/theme.h"
#include "app/visits/photo_intake.h"
#include "core/units/calendar.h"
#include "core/visit/dictation.h"
#include "core/visit/due.h"
#include "core/visit/expectation.h"
#include "core/visit/first_day.h"
#include "core/visit/keeping.h"
#include "core/visit/reading_kind.h"
#include "files/job_file.h"

#include <QApplication>
#include <QDir>
#include <QFile>
#include <QPainter>
#include <QPainterPath>

#include <cmath>
#include <cstdio>
#include <cstdlib>

using namespace vernal;

namespace {

// A photo as a drawing: what it shows, in few strokes, with grain.
QImage drawn(const QString& what, double value)
{
    QImage image(1200, 900, QImage::Format_RGB32);
    QPainter p(&image);
    p.setRenderHint(QPainter::Antialiasing);
    if (what == "gauge") {
        p.fillRect(image.rect(), QColor(0xB9B4A6));
        p.setPen(QPen(QColor(0x6E5A3A), 46));
        p.drawLine(0, 640, 1200, 640);
        p.setPen(QPen(QColor(0x3A3A3A), 10));
        p.setBrush(QColor(0xF6F3EA));
        p.drawEllipse(QPointF(600, 420), 300, 300);
        for (int i = 0; i <= 16; ++i) {
            const double a = (225 - i * 270 / 16.0) * M_PI / 180;
            p.setPen(QPen(QColor(0x303030), i % 4 == 0 ? 8 : 4));
            p.drawLine(QPointF(600 + 270 * std::cos(a), 420 - 270 * std::sin(a)), QPointF(600 + (i % 4 == 0 ? 225 : 245) * std::cos(a), 420 - (i % 4 == 0 ? 225 : 245) * std::sin(a)));
        }
        const double a = (225 - value / 4 * 270) * M_PI / 180;
        p.setPen(QPen(QColor(0x8A2A1A), 12, Qt::SolidLine, Qt::RoundCap));
        p.drawLine(QPointF(600, 420), QPointF(600 + 220 * std::cos(a), 420 - 220 * std::sin(a)));
    } else if (what == "roof") {
        p.fillRect(image.rect(), QColor(0xA9C4DA));
        QPainterPath roof;
        roof.moveTo(0, 900);
        roof.lineTo(0, 480);
        roof.lineTo(620, 210);
        roof.lineTo(1200, 470);
        roof.lineTo(1200, 900);
        p.fillPath(roof, QColor(0x8C5A46));
        for (int i = 0; i < 3; ++i) {
            QPolygonF panel{QPointF(250 + i * 240, 640), QPointF(330 + i * 230, 420), QPointF(520 + i * 230, 420), QPointF(470 + i * 240, 640)};
            p.setPen(QPen(QColor(0xD8D8D0), 8));
            p.setBrush(QColor(0x1E2E3E));
            p.drawPolygon(panel);
        }
        if (value > 0) { // what has grown before it
            p.setPen(Qt::NoPen);
            p.setBrush(QColor(0x33502E));
            p.drawEllipse(QPointF(120, 560), 90 + 40 * value, 170 + 60 * value);
        }
    } else if (what == "strainer") {
        p.fillRect(image.rect(), QColor(0x6F6A60));
        p.setPen(QPen(QColor(0xC9A34E), 16));
        p.setBrush(QColor(0x9C7A34));
        p.drawEllipse(QPointF(600, 450), 260, 260);
        p.setPen(QPen(QColor(0x2A241A), 5));
        for (int i = -12; i <= 12; ++i) {
            p.drawLine(600 + i * 20, 250, 600 + i * 20, 650);
            p.drawLine(400, 450 + i * 16, 800, 450 + i * 16);
        }
        p.setPen(Qt::NoPen);
        p.setBrush(QColor(0xDAD2C0));
        for (int i = 0; i < 60; ++i)
            p.drawEllipse(QPointF(430 + (i * 137) % 340, 300 + (i * 89) % 300), 9 + i % 7, 7 + i % 5);
    } else { // terminals
        p.fillRect(image.rect(), QColor(0xD9D6CC));
        p.setPen(QPen(QColor(0x4A4A46), 6));
        p.setBrush(QColor(0x3E4A44));
        p.drawRect(150, 330, 900, 230);
        for (int i = 0; i < 9; ++i) {
            p.setBrush(QColor(0xBFC4BE));
            p.drawEllipse(QPointF(220 + i * 95, 445), 26, 26);
            p.setPen(QPen(i % 3 == 0 ? QColor(0x8A2A1A) : QColor(0x27486A), 14));
            p.drawLine(220 + i * 95, 560, 180 + i * 102, 900);
            p.setPen(QPen(QColor(0x4A4A46), 6));
        }
    }
    p.end();
    unsigned seed = 7; // grain, the same on every machine
    for (int y = 0; y < image.height(); ++y) {
        auto* line = reinterpret_cast<QRgb*>(image.scanLine(y));
        for (int x = 0; x < image.width(); ++x) {
            seed = seed * 1664525U + 1013904223U;
            const int d = static_cast<int>(seed >> 29U) - 4;
            line[x] = qRgb(std::clamp(qRed(line[x]) + d, 0, 255), std::clamp(qGreen(line[x]) + d, 0, 255), std::clamp(qBlue(line[x]) + d, 0, 255));
        }
    }
    return image;
}

class Book {
public:
    explicit Book(const char* loop) : file_(std::string(VERNAL_SOURCE "/demo/") + loop + "/job.json"), job_(*open_job(file_))
    {
        job_.logbook = {};
        job_.attachments.clear();
        job_.logbook.costs = {"€", 0.29, 58};
    }
    Visit& visit(const char* when, Purpose purpose, const char* title)
    {
        close();
        job_.logbook.visits.push_back(new_visit(job_, when, purpose, job_.variants.front().id));
        now().title = title;
        // What a yearly service does anyhow.
        VisitWork routine;
        routine.text = "Looked over and measured";
        routine.minutes_s = 3600;
        if (purpose != Purpose::call_back)
            for (const DueItem& d : due_items(job_))
                if (d.kind != "horizon" && d.kind != "relief" && d.kind != "anode")
                    routine.does.push_back(d.id);
        if (!routine.does.empty())
            now().work.push_back(routine);
        return now();
    }
    void say(const std::string& line)
    {
        if (const auto said = dictate(now(), line, job_.variants.front(), Units::metric()); !said) {
            std::fprintf(stderr, "%s: %s\n", line.c_str(), said.error().what.c_str());
            std::exit(1);
        }
    }
    void read(const char* kind, double value, const std::string& of, const std::string& tail = "")
    {
        VisitReading r;
        r.kind = kind;
        r.of = of;
        r.value = value;
        const ReadingKind& k = *find_reading_kind(kind);
        char b[64];
        std::snprintf(b, sizeof b, "%.*f", decimals(k.quantity, Units::metric()), to_display(value, k.quantity, Units::metric()));
        const std::string number = k.quantity == Quantity::time_of_day ? clock_text(value * 3600) : std::string(b) + " " + unit_name(k.quantity, Units::metric());
        say((of.empty() ? k.said : of) + std::string(" ") + number + (!of.empty() && *k.said != '\0' ? std::string(" ") + k.said : "") + tail);
    }
    // Probes: ohms by their curves at a cup, what the unit shows, how far the others are from the first.
    void probes(double cup_c, double second_off_k)
    {
        const auto& all = variant().probes;
        for (std::size_t i = 0; i < std::min<std::size_t>(2, all.size()); ++i) {
            const double c = cup_c + (i == 1 ? second_off_k : 0);
            read("ohm", *signal_at(all[i].curve, Temperature::celsius(c)), all[i].key, ", by meter, probe off the unit");
            read("reading", c, all[i].key);
        }
        read("apart", second_off_k, all[0].key + " " + all[1].key, ", by one cup, 5 min");
    }
    // Flow and rise that carry this share of what a clear sky gives at that hour.
    void heat(double share, double flow_share, double store_c, double air_c, const char* clock, bool bucket)
    {
        const Loop& l = variant().loop;
        const double flow = l.pump.flow_m3_s * flow_share, clear = clear_sky_heat_w(job_, variant(), now().when.substr(0, 11) + clock, store_c + 5, air_c);
        read("air", air_c, "");
        read("store", store_c, "");
        if (arrangement_of(l).carrier != Carrier::air) {
            if (bucket) {
                char b[64];
                std::snprintf(b, sizeof b, "bucket 8 L %.0f s %.0f s %.0f s", 8e-3 / flow, 8e-3 / flow + 1, 8e-3 / flow - 1);
                say(b);
            } else {
                read("flow", flow, "", ", by the meter in the line");
            }
        }
        read("rise", share * clear / carried_w(l, flow, 1, store_c), "", std::string(", by both gauges, at ") + clock);
    }
    void gauge(double at_c, double of_filled)
    {
        const Loop& l = variant().loop;
        char b[80];
        std::snprintf(b, sizeof b, "pressure %.2f bar at %.0f C, by the gauge", cold_gauge_pa(job_, l, at_c, usual_fill_c, l.vessel.fill_pa * of_filled) / 1e5, at_c);
        say(b);
    }
    void photo(const char* what, double value, const char* caption, const char* of)
    {
        const auto a = photo_of(drawn(what, value), QString::fromUtf8(what) + QString::number(job_.attachments.size() + 1) + ".jpg");
        job_.attachments.push_back(*a);
        now().photos.push_back({a->sha256, caption, of});
    }
    void settings(std::size_t found, std::size_t left, const char* how_found, const char* how_left)
    {
        now().found = {job_.variants[found]};
        now().left = {job_.variants[left]};
        now().found_how = how_found;
        now().left_how = how_left;
    }
    void close()
    {
        if (!job_.logbook.visits.empty())
            now().closed = true;
    }
    Job& job() { return job_; }
    const Variant& variant() const { return job_.variants.front(); }
    Visit& now() { return job_.logbook.visits.back(); }
    void save()
    {
        if (const auto done = save_job(job_, file_); !done) {
            std::fprintf(stderr, "%s\n", done.error().text().c_str());
            std::exit(1);
        }
        std::printf("%s: %zu visits\n", file_.c_str(), job_.logbook.visits.size());
    }

private:
    std::string file_;
    Job job_;
};

void people(Book& b, const char* weather, const char* sky)
{
    b.say("persons: the fitter, the dairy's foreman");
    b.say(std::string("weather: ") + weather);
    b.say(std::string("sky: ") + sky);
}

void cheese_room()
{
    Book b("cheese-room");
    b.visit("2023-06-08T08:30", Purpose::commissioning, "");
    people(b, "clear, light wind", "clear");
    b.probes(24, 0.1);
    b.gauge(17, 1.0);
    b.say("gas 1.5 bar");
    b.heat(0.9, 1.0, 38, 21, "11:30", true);
    b.say("P1 3 h");
    b.say("P1 14 starts");
    for (const char* item : {"brackets", "covered", "crosswise", "earthed", "tank-fixed", "dead", "probes-placed", "leads", "tugged", "side-by-side", "flush", "leak-test", "insulation", "vessel-gas", "fill", "freezing-point", "purge", "cold-pressure", "valves-run", "outputs", "uncover", "flow", "rise", "starts", "stops", "limit", "cooler", "tap", "all-auto", "settings", "owner", "first-day"})
        b.say(std::string("tick: commissioning/") + item + " | done |  | 2023-06-08T" + (std::string(item) < "m" ? "10:00" : "15:30"));
    b.photo("roof", 0, "penetrations sealed, connections crosswise", "collector");
    b.photo("gauge", 1.8, "the mark on the gauge", "vessel");
    b.now().first_day = *foretell(b.job(), b.variant(), "2023-06-09", Clouds::clear, 12, 25, 16);
    b.say("next: read the gauge after the first hot weeks | by 2023-09-15");
    b.visit("2024-05-21T09:15", Purpose::service, "yearly service");
    people(b, "sun and thin cloud", "thin");
    b.settings(0, 0, "by reading the unit", "as it was");
    b.probes(23, 0.2);
    b.gauge(15, 0.93);
    b.heat(0.82, 0.98, 44, 18, "11:10", true);
    b.say("P1 1980 h");
    b.say("P1 5320 starts");
    b.say("done: Strainer cleaned | 20 min | does strainer");
    b.say("done: read the gauge after the first hot weeks | 5 min");
    b.photo("strainer", 0, "flux and scale after the first year", "pump");
    b.visit("2025-06-03T10:00", Purpose::service, "yearly service");
    people(b, "clear", "clear");
    b.probes(22, 0.1);
    b.gauge(19, 0.84);
    b.heat(0.87, 0.97, 47, 24, "11:40", true);
    b.say("P1 3890 h");
    b.say("P1 10610 starts");
    b.say("fault: Gauge below its mark for the second year; no wet joint found | at vessel");
    b.say("done: Fluid tested, topped up by 1 L | 35 min | part Fluid, ready mixed | cost 14 | does fluid");
    b.say("next: look for the leak at the air vent | by 2025-10-01");
    b.visit("2026-05-12T09:30", Purpose::service, "yearly service");
    people(b, "sun and cloud, 14 °C", "broken");
    b.settings(0, 1, "by reading the unit", "as agreed with the dairy");
    b.probes(24, 0.2);
    b.gauge(14, 0.76);
    b.photo("gauge", 1.35, "in the morning, before the sun", "vessel");
    b.heat(0.64, 0.95, 46, 14, "11:20", true);
    b.say("P1 5760 h");
    b.say("P1 15890 starts");
    b.say("fault: Air vent on the roof weeps | at return pipe");
    b.say("done: Air vent replaced | 45 min | part Air vent | cost 31.5 | lasts 10 years");
    b.say("next: read the cold gauge in four weeks | by 2026-06-15");
    b.save();
}

void parlour_wash()
{
    Book b("parlour-wash");
    const double drain = b.variant().loop.drain_back.drain_s;
    struct Year {
        const char* when;
        const char* title;
        Purpose purpose;
        double share, drains, hours, starts;
    };
    for (const Year& y : {Year{"2023-04-18T09:00", "", Purpose::commissioning, 0.93, 0.72, 2, 9}, Year{"2024-04-23T10:00", "yearly service", Purpose::service, 0.86, 0.74, 1790, 3900}, Year{"2025-05-06T09:30", "yearly service", Purpose::service, 0.78, 0.75, 3680, 8020}, Year{"2026-04-28T10:15", "yearly service", Purpose::service, 0.70, 0.79, 5510, 12150}}) {
        b.visit(y.when, y.purpose, y.title);
        people(b, "clear, calm", "clear");
        b.probes(26, 0.1);
        b.heat(y.share, 1.0, 42, 16, "11:30", false);
        b.read("drains", drain * y.drains, "", ", by watch");
        b.read("hours", y.hours, "P1");
        b.read("starts", y.starts, "P1");
        b.say("tap 47.5 C");
        b.say("circulation 56 C");
    }
    b.say("fault: Less heat each year at the same flow: the coil scales | at tank");
    b.photo("strainer", 1, "scale from the cold line", "tank");
    b.say("done: Hardness measured, descaling offered | 25 min");
    b.say("next: descale the coil | by 2026-10-15");
    b.now().found = {b.job().variants[0]};
    b.now().left = {b.job().variants[0]};
    b.now().found_how = "by reading the unit";
    b.now().left_how = "as it was";
    b.save();
}

void calf_milk()
{
    Book b("calf-milk");
    struct Year {
        const char* when;
        const char* title;
        Purpose purpose;
        double apart, volts;
    };
    for (const Year& y : {Year{"2023-09-12T13:00", "", Purpose::commissioning, 0.1, 12.9}, Year{"2024-09-17T10:30", "yearly service", Purpose::service, 0.5, 12.8}, Year{"2025-09-09T11:00", "yearly service", Purpose::service, 1.0, 12.7}}) {
        b.visit(y.when, y.purpose, y.title);
        people(b, "clear", "clear");
        b.probes(25, y.apart);
        b.heat(0.88, 1.0, 36, 17, "11:45", true);
        b.read("battery", y.volts, "", ", by meter at its posts");
    }
    b.say("fault: S2 reads higher each year against S1 in the same cup | at S2");
    b.photo("terminals", 0, "green on the clamp of S2", "S2");
    b.say("next: replace S2 before the calves come | by 2026-02-01");
    b.visit("2026-03-03T16:20", Purpose::call_back, "milk stays cold in the morning");
    b.say("persons: the fitter");
    b.say("weather: dull");
    b.say("sky: overcast");
    b.say("S2 42.5 C");
    b.say("battery 12.2 V, by meter at its posts");
    b.say("done: Probe S2 replaced, junction filled | 55 min | part Probe | cost 19.8 | lasts 15 years | at S2");
    b.say("done: replace S2 before the calves come");
    b.say("note: Found loose: water in the junction box. Gland renewed.");
    b.photo("terminals", 1, "new gland", "S2");
    b.save();
}

void drying_loft()
{
    Book b("drying-loft");
    b.visit("2024-08-27T09:00", Purpose::commissioning, "");
    people(b, "clear", "clear");
    b.probes(21, 0.2);
    b.heat(0.85, 1.0, 27, 20, "12:10", false);
    b.say("P1 1 h");
    b.say("P1 4 starts");
    b.visit("2026-09-01T10:00", Purpose::service, "before the hay");
    people(b, "clear, windy", "clear");
    b.probes(22, 0.3);
    b.heat(0.8, 1.0, 29, 18, "12:00", false);
    b.say("P1 1240 h");
    b.say("P1 2105 starts");
    b.say("done: Filter changed | 15 min | part Filter | cost 9.9");
    b.say("next: look what shades the wall in autumn | by 2026-10-10");
    b.photo("roof", 1, "the ash in the east has grown", "collector");
    b.save();
}

} // namespace

int main(int argc, char** argv)
{
    qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication app(argc, argv);
    cheese_room();
    parlour_wash();
    calf_milk();
    drying_loft();
    return 0;
}
