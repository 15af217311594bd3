#include "image/perspective.hpp"

#include "support/support.hpp"

#include <opencv2/imgproc.hpp>

using namespace kasuri;
using Catch::Matchers::WithinAbs;
using image::Corners;
using image::Perspective;

TEST_CASE("four corners give the projective map that OpenCV gives, there and back", "[image]") {
    const Corners all[] = {{{{0, 0}, {1, 0}, {1, 1}, {0, 1}}},
                           {{{170, 118}, {812, 74}, {846, 540}, {128, 496}}},
                           {{{900, 20}, {880, 640}, {60, 500}, {100, 100}}}, // turned
                           {{{100, 50}, {20, 60}, {10, 300}, {140, 310}}}};  // seen from behind
    for (const Corners& corners : all) {
        const auto view = Perspective::make(corners);
        REQUIRE(view);
        const std::vector<cv::Point2f> square{{0, 0}, {1, 0}, {1, 1}, {0, 1}};
        std::vector<cv::Point2f> there;
        for (const image::Point& p : corners)
            there.emplace_back(static_cast<float>(p.x), static_cast<float>(p.y));
        const cv::Mat map = cv::getPerspectiveTransform(square, there);
        for (const double u : {-0.2, 0.0, 0.3, 0.5, 1.0, 1.1})
            for (const double v : {-0.1, 0.0, 0.4, 1.0}) {
                const cv::Mat answer = map * (cv::Mat_<double>(3, 1) << u, v, 1);
                const double w = answer.at<double>(2);
                const image::Point made = view->at(u, v), back = view->back(made);
                CHECK_THAT(made.x, WithinAbs(answer.at<double>(0) / w, 1e-6 * 1000));
                CHECK_THAT(made.y, WithinAbs(answer.at<double>(1) / w, 1e-6 * 1000));
                CHECK_THAT(back.x, WithinAbs(u, 1e-9));
                CHECK_THAT(back.y, WithinAbs(v, 1e-9));
            }
    }
}

TEST_CASE("corners that make no four-sided figure have no map", "[image]") {
    const double none = std::numeric_limits<double>::quiet_NaN();
    CHECK_FALSE(Perspective::make({{{0, 0}, {1, 1}, {1, 0}, {0, 1}}})); // crossed
    CHECK_FALSE(Perspective::make({{{0, 0}, {1, 0}, {2, 0}, {0, 1}}})); // three in a line
    CHECK_FALSE(Perspective::make({{{0, 0}, {4, 0}, {1, 1}, {0, 4}}})); // dented
    CHECK_FALSE(Perspective::make({{{0, 0}, {0, 0}, {0, 0}, {0, 0}}})); // one point
    CHECK_FALSE(Perspective::make({{{0, 0}, {none, 0}, {1, 1}, {0, 1}}}));
}
