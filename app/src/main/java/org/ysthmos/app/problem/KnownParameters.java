package org.ysthmos.app.problem;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.ArrayList;
import java.util.List;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.MethodParameter;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.method.HandlerMethod;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import org.ysthmos.core.document.Nearest;

/**
 * Refuses parameters in an address that nothing reads: one that is misspelt would be as if it were
 * not there, and the answer would look like one to another question.
 */
@Configuration(proxyBeanMethods = false)
class KnownParameters implements WebMvcConfigurer, HandlerInterceptor {

  @Override
  public void addInterceptors(InterceptorRegistry registry) {
    registry.addInterceptor(this).addPathPatterns("/api/**");
  }

  @Override
  public boolean preHandle(
      HttpServletRequest request, HttpServletResponse response, Object handler) {
    if (request.getQueryString() != null && handler instanceof HandlerMethod method) {
      List<String> known = known(method);
      for (String name : request.getParameterMap().keySet()) {
        if (!known.contains(name)) {
          throw new ApiProblem(
              HttpStatus.BAD_REQUEST,
              "There is no such parameter",
              "Here " + Nearest.unknown("parameter", name, known));
        }
      }
    }
    return true;
  }

  private static List<String> known(HandlerMethod method) {
    List<String> known = new ArrayList<>();
    for (MethodParameter parameter : method.getMethodParameters()) {
      RequestParam asked = parameter.getParameterAnnotation(RequestParam.class);
      if (asked != null) {
        known.add(asked.name().isEmpty() ? parameter.getParameter().getName() : asked.name());
      }
    }
    return known;
  }
}
